import { chmodSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  findBrowser,
  findSurveyBrowser,
  usualPlaces,
} from '../../../src/browser/chromium/find-browser.js';
import { temporaryFolder, writeFiles } from '../../support/folder.js';

describe('findBrowser', () => {
  it('takes the one that the environment names, and no other', () => {
    const folder = temporaryFolder();
    writeFiles(folder, { mine: '#!/bin/sh\n' });
    const mine = join(folder, 'mine');
    chmodSync(mine, 0o755);
    expect(findBrowser({ ZEALOUS_LYNX_BROWSER: mine })).toBe(mine);
    expect(
      findBrowser({ ZEALOUS_LYNX_BROWSER: join(folder, 'none'), PATH: '/usr/bin' }),
    ).toBeUndefined();
  });

  it('looks along the path', () => {
    const folder = temporaryFolder();
    writeFiles(folder, { chromium: '#!/bin/sh\n' });
    chmodSync(join(folder, 'chromium'), 0o755);
    expect(findBrowser({ PATH: folder }, 'linux')).toBe(join(folder, 'chromium'));
  });

  it('surveys with a browser without windows, where there is one and none is named', () => {
    const folder = temporaryFolder();
    writeFiles(folder, { 'chromium-headless-shell': '#!/bin/sh\n', mine: '#!/bin/sh\n' });
    const shell = join(folder, 'chromium-headless-shell');
    const mine = join(folder, 'mine');
    for (const program of [shell, mine]) chmodSync(program, 0o755);
    expect(findSurveyBrowser({ PATH: folder }, 'linux')).toBe(shell);
    expect(findBrowser({ PATH: folder }, 'linux')).not.toBe(shell);
    expect(findSurveyBrowser({ PATH: folder, ZEALOUS_LYNX_BROWSER: mine }, 'linux')).toBe(mine);
  });

  it('knows the usual places of each system', () => {
    expect(usualPlaces({ HOME: '/Users/oda' }, 'darwin')).toContain(
      '/Users/oda/Applications/Chromium.app/Contents/MacOS/Chromium',
    );
    expect(usualPlaces({ PROGRAMFILES: 'C:\\Programs' }, 'win32')).toContain(
      'C:\\Programs\\Microsoft\\Edge\\Application\\msedge.exe',
    );
    expect(usualPlaces({}, 'linux')).toContain('/usr/bin/chromium');
  });
});
