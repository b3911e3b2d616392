import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { sharedDemo } from '../support/shared-demo.js';
import type { SharedDemo } from '../support/shared-demo.js';

let demo: SharedDemo;

beforeAll(async () => {
  demo = await sharedDemo();
});

describe('the package', () => {
  it('has what the program needs and nothing else, in under 2 MB', () => {
    const { files, size } = demo.installed.packed;
    const paths = files.map(({ path }) => path);
    for (const path of ['LICENSE', 'README.md', 'CHANGELOG.md', 'dist/bundle/cli/main.js'])
      expect(paths).toContain(path);
    expect(paths).toContain('dist/src/index.d.ts');
    expect(paths).toContain('schemas/rank.schema.json');
    const foreign = paths.filter((path) => /(?:^|\/)(?:test|bench|node_modules|\.ci)\//.test(path));
    expect(foreign).toEqual([]);
    expect(paths.filter((path) => /\.(?:tsbuildinfo|log|map)$|\/\.built$/.test(path))).toEqual([]);
    expect(size).toBeLessThan(2_000_000);
  });

  it('runs the demo where it was installed', () => {
    const { cwd, installed, outcome } = demo;
    const version = spawnSync(installed.program, ['--version'], { cwd, encoding: 'utf8' });
    expect(version.stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
    expect(outcome.status).toBe(0);
    expect(outcome.stdout).toMatch(
      /\nClocked +after it was deployed: load [^]* tried,[^]* measured:[^]*\nReported .*\nKept/,
    );
    expect(existsSync(join(cwd, 'brindle-bay-refit/manifest.json'))).toBe(true);
    expect(readdirSync(join(cwd, '.zealous-lynx'))).toContain('workspace.sqlite');
  });

  it('is a library', () => {
    const own = [
      "import { Workspace, rank, defaultPolicy, readHarFile } from 'zealous-lynx';",
      "const workspace = Workspace.openExisting('.zealous-lynx');",
      'const { images } = await rank(workspace, undefined, defaultPolicy);',
      "const { sessions } = await readHarFile('.zealous-lynx/har/session-1.har');",
      'console.log(images.length > 40, sessions.length);',
      'workspace.close();',
    ].join('\n');
    const library = spawnSync(process.execPath, ['--input-type=module', '--eval', own], {
      cwd: demo.cwd,
      encoding: 'utf8',
    });
    expect([library.stdout, library.stderr]).toEqual(['true 1\n', expect.any(String)]);
  });
});
