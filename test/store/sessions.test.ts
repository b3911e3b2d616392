import { describe, expect, it } from 'vitest';
import { unshaped } from '../../src/core/visitors/network.js';
import { Workspace } from '../../src/store/workspace.js';
import { freshPlace } from '../support/place.js';

describe('Sessions', () => {
  it('gives the sessions of the newest call with a label', () => {
    const workspace = Workspace.open(freshPlace());
    const now = '2026-01-01T00:00:00.000Z';
    const conditions = {
      network: unshaped,
      cpuFactor: 1,
      view: { name: 'phone', width: 390, height: 844, density: 3, touch: true },
      browser: 'Chromium 1',
      cache: 'cold' as const,
    };
    const plan = (...pages: string[]) => pages.map((page) => ({ page, conditions }));
    workspace.sessions.begin('x', now, plan('http://old.test/'));
    const pages = ['http://a.test/', 'http://b.test/'];
    workspace.sessions.begin('x', now, plan(...pages));
    const found = workspace.sessions.find('x');
    expect(found.map(({ page }) => page)).toEqual(pages);
    expect(found[0]!.conditions).toEqual(conditions);
    expect(workspace.sessions.begin(undefined, now, plan(...pages))[0]!.label).toBe('clock-3');
    workspace.close();
  });
});
