import { execFileSync } from 'node:child_process';
import { chmodSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { run } from '../support/program.js';

const versionOf = (cwd: string, cache = join(cwd, 'cache')) =>
  run(['--version'], { cwd, env: { ZEALOUS_LYNX_CACHE: cache } });

function codeIn(cwd: string): string {
  const folder = join(cwd, 'cache', 'code');
  const [name] = readdirSync(folder).filter((one) => one.startsWith('program.cjs-'));
  return join(folder, name!);
}

describe('compiled code', () => {
  it('is kept by the first run, for its owner alone, and taken by the next', async () => {
    const cwd = temporaryFolder();
    const first = await versionOf(cwd);
    const file = codeIn(cwd);
    const { ino, mode } = statSync(file);
    expect(mode & 0o077).toBe(0);
    expect(statSync(join(cwd, 'cache', 'code')).mode & 0o077).toBe(0);
    expect(await versionOf(cwd)).toEqual(first);
    // What is not accepted is written anew.
    expect(statSync(file).ino).toBe(ino);
  });

  it('is compiled anew where it was damaged', async () => {
    const cwd = temporaryFolder();
    const first = await versionOf(cwd);
    const file = codeIn(cwd);
    const sound = readFileSync(file);
    for (const damaged of [flipped(sound), sound.subarray(0, 1_000), Buffer.alloc(0)]) {
      writeFileSync(file, damaged);
      expect(await versionOf(cwd)).toEqual(first);
      expect(readFileSync(file).equals(damaged)).toBe(false);
      const { ino } = statSync(file);
      expect(await versionOf(cwd)).toEqual(first);
      expect(statSync(file).ino).toBe(ino);
    }
  });

  it('is left alone in a folder that others may write to', async () => {
    const cwd = temporaryFolder();
    const first = await versionOf(cwd);
    const file = codeIn(cwd);
    writeFileSync(file, 'not compiled by this program');
    chmodSync(join(cwd, 'cache', 'code'), 0o777);
    expect(await versionOf(cwd)).toEqual(first);
    expect(readFileSync(file, 'utf8')).toBe('not compiled by this program');
  });

  it('is not needed', async () => {
    const cwd = temporaryFolder();
    const first = await versionOf(cwd);
    writeFiles(cwd, { 'no-folder': '' });
    expect(await versionOf(cwd, join(cwd, 'no-folder'))).toEqual(first);
    expect(first).toMatchObject({ status: 0, stderr: '' });
  });

  it('is never that of another text, though it be as long', () => {
    const cwd = temporaryFolder();
    const system = new URL('../../dist/src/system/compiled-code.js', import.meta.url).href;
    const text = (value: number) =>
      `${'// kites\n'.repeat(20_000)}exports.value = ${value}; exports.beside = require('./beside.cjs').beside;`;
    writeFiles(cwd, {
      'beside.cjs': 'exports.beside = 7;',
      'main.mjs': `import { createRequire } from 'node:module';
import { keepCodeIn, requireCompiled } from ${JSON.stringify(system)};
keepCodeIn('code');
const { value, beside } = requireCompiled('./long.cjs', createRequire(import.meta.url));
console.log(value, beside);`,
    });
    const told = [1, 1, 2, 2].map((value) => {
      writeFiles(cwd, { 'long.cjs': text(value) });
      return execFileSync(process.execPath, ['main.mjs'], { cwd, encoding: 'utf8' }).trim();
    });
    expect(told).toEqual(['1 7', '1 7', '2 7', '2 7']);
    expect(readdirSync(join(cwd, 'code'))).toHaveLength(1);
  });
});

function flipped(bytes: Buffer): Buffer {
  const copy = Buffer.from(bytes);
  const at = Math.floor(copy.length / 2);
  copy[at] = copy[at]! ^ 0xff;
  return copy;
}
