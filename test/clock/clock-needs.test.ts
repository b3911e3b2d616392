import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { Workspace } from '../../dist/src/store/workspace.js';
import { knownNeeds } from '../../dist/src/tasks/clock/known-needs.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { chooseViews, defaultViews } from '../../src/core/visitors/view.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { run, runJson, twoViews } from '../support/program.js';

describe('what clock knows of needs', () => {
  it('is that of its own view, and nothing where nothing was encoded', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'site/index.html':
        '<!doctype html><meta name="viewport" content="width=device-width"><style>img{width:100px}@media (max-width:600px){img{width:100%}}</style><img src="/a.jpg" alt="Kites">',
      'site/a.jpg': await scene(1600, 1000).jpeg({ quality: 95 }).toBuffer(),
    });
    const needsIn = async (name: string | null) => {
      const workspace = Workspace.openExisting(join(cwd, '.zealous-lynx'));
      const needs = await knownNeeds(workspace, defaultPolicy);
      const [view] = name === null ? [null] : chooseViews(defaultViews, [name]);
      const [bytes] = [...needs(view ?? null).values()];
      workspace.close();
      return bytes;
    };
    const told = async (...more: string[]) => {
      const { images } = await runJson<{ images: { neededBytes: number }[] }>(['rank', ...more], {
        cwd,
      });
      return images[0]!.neededBytes;
    };
    await run(['survey', 'site', '--no-encode', ...twoViews], { cwd });
    expect(await needsIn('phone')).toBeUndefined();
    await run(['survey', 'site', ...twoViews], { cwd });
    const [phone, laptop] = [await needsIn('phone'), await needsIn('laptop')];
    expect(phone).toBe(await told('--view', 'phone'));
    expect(laptop).toBe(await told('--view', 'laptop'));
    expect(phone!).toBeGreaterThan(laptop! * 3);
    expect(await needsIn(null)).toBe(await told());
    // The survey has not looked at it.
    expect(await needsIn('tablet')).toBeUndefined();
  });
});
