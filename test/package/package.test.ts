import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';

const root = fileURLToPath(new URL('../..', import.meta.url));

interface Packed {
  readonly filename: string;
  readonly size: number;
  readonly files: readonly { readonly path: string }[];
}

function npm(values: readonly string[], cwd: string) {
  const done = spawnSync('npm', values, { cwd, encoding: 'utf8', maxBuffer: 64_000_000 });
  if (done.status !== 0) throw new Error(`npm ${values[0]}: ${done.stderr}`);
  return done.stdout;
}

let folder: string;
let packed: Packed;

beforeAll(() => {
  folder = temporaryFolder(() => {});
  const told = npm(['pack', '--json', '--silent', '--pack-destination', folder], root);
  [packed] = JSON.parse(told.slice(told.indexOf('['))) as [Packed];
});

describe('the package', () => {
  it('has what the program needs and nothing else, in under 2 MB', () => {
    const paths = packed.files.map(({ path }) => path);
    for (const path of ['LICENSE', 'README.md', 'CHANGELOG.md', 'dist/bundle/cli/main.js'])
      expect(paths).toContain(path);
    expect(paths).toContain('dist/src/index.d.ts');
    expect(paths).toContain('schemas/rank.schema.json');
    const foreign = paths.filter((path) => /(?:^|\/)(?:test|bench|node_modules|\.ci)\//.test(path));
    expect(foreign).toEqual([]);
    expect(paths.filter((path) => /\.(?:tsbuildinfo|log|map)$|\/\.built$/.test(path))).toEqual([]);
    expect(packed.size).toBeLessThan(2_000_000);
  });

  it('installs in an empty folder elsewhere, and runs the demo there', () => {
    const elsewhere = join(folder, 'elsewhere');
    mkdirSync(elsewhere);
    npm(['init', '--yes'], elsewhere);
    const archive = join(folder, packed.filename);
    npm(['install', '--no-audit', '--no-fund', '--prefer-offline', archive], elsewhere);
    const program = join(elsewhere, 'node_modules', '.bin', 'zlynx');
    const env = {
      ...process.env,
      NO_COLOR: '1',
      ZEALOUS_LYNX_CACHE: join(folder, 'cache'),
    };
    const version = spawnSync(program, ['--version'], { cwd: elsewhere, env, encoding: 'utf8' });
    expect(version.stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
    const demo = spawnSync(program, ['demo'], { cwd: elsewhere, env, encoding: 'utf8' });
    expect(demo.stderr).not.toMatch(/\[\w+\]\n$/);
    expect(demo.status).toBe(0);
    expect(demo.stdout).toMatch(
      /\nClocked +after it was deployed: load [^]* tried,[^]* measured:[^]*\nReported .*\nKept/,
    );
    expect(existsSync(join(elsewhere, 'brindle-bay-refit/manifest.json'))).toBe(true);
    expect(readdirSync(join(elsewhere, '.zealous-lynx'))).toContain('workspace.sqlite');
    const own = [
      "import { Workspace, rank, defaultPolicy, readHarFile } from 'zealous-lynx';",
      "const workspace = Workspace.openExisting('.zealous-lynx');",
      'const { images } = await rank(workspace, undefined, defaultPolicy);',
      "const { sessions } = await readHarFile('.zealous-lynx/har/session-1.har');",
      'console.log(images.length > 40, sessions.length);',
      'workspace.close();',
    ].join('\n');
    const library = spawnSync(process.execPath, ['--input-type=module', '--eval', own], {
      cwd: elsewhere,
      encoding: 'utf8',
    });
    expect(library.stdout).toBe('true 1\n');
  });
});
