import { spawnSync } from 'node:child_process';
import { chmodSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { programFile } from '../support/program.js';

const manual = readFileSync(new URL('../../docs/gate.md', import.meta.url), 'utf8');
const recipes = [...manual.matchAll(/<!-- recipe: (.+?) -->\s+```sh\n([^]*?)```/g)].map(
  ([, name, script]) => [name!, script!] as const,
);

/** A checkout with a folder of a static site, budgets, and the program on its path. */
async function checkout(): Promise<string> {
  const cwd = temporaryFolder();
  const picture = await photograph(300, 200, 1).jpeg().toBuffer();
  writeFiles(cwd, {
    'public/index.html': '<!doctype html><title>K</title><img src="k.jpg" width="100" alt="">',
    'public/k.jpg': picture,
    'zealous-lynx.config.yaml':
      "budgets:\n  - { measure: heaviestImage, page: '/', most: 100000, reason: light }\n",
    'bin/zealous-lynx': `#!/bin/sh\nexec '${process.execPath}' '${programFile}' "$@"\n`,
  });
  chmodSync(join(cwd, 'bin/zealous-lynx'), 0o755);
  return cwd;
}

function runRecipe(script: string, cwd: string) {
  const env = { ...process.env, PATH: `${join(cwd, 'bin')}:${process.env['PATH']}`, NO_COLOR: '1' };
  return spawnSync('sh', ['-eu', '-c', script], { cwd, env, encoding: 'utf8' });
}

describe('the recipes of the manual', () => {
  it.each(recipes)('run as they stand: %s', async (name, script) => {
    const cwd = await checkout();
    const calm = runRecipe(script, cwd);
    expect(calm.status, calm.stderr).toBe(0);
    const upload = await photograph(1200, 900, 2).jpeg({ quality: 95 }).toBuffer();
    writeFileSync(join(cwd, 'public/k.jpg'), upload);
    const heavy = runRecipe(script, cwd);
    if (name === 'a step of a shell') {
      expect(heavy.status).toBe(1);
      expect(heavy.stdout).toMatch(/1 budget does not hold/);
    } else {
      expect(heavy.status, heavy.stderr).toBe(0);
      const file = name === 'the body of a comment' ? 'comment.md' : 'budgets.xml';
      expect(readFileSync(join(cwd, file), 'utf8')).toMatch(/heaviest image on \//);
    }
  });

  it('are three', () => {
    expect(recipes).toHaveLength(3);
  });
});
