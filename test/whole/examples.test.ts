import { spawnSync } from 'node:child_process';
import { cpSync, readFileSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';

const root = fileURLToPath(new URL('../..', import.meta.url));

const examples = ['finding.patch', 'option.patch', 'form.patch'];
let copy: string;

/** A copy of the code, where each example could be applied by itself, with all of them applied, and built. */
beforeAll(() => {
  copy = temporaryFolder(afterAll);
  for (const part of ['src', 'demo', 'report-app', 'test', 'scripts', 'docs', 'schemas'])
    cpSync(join(root, part), join(copy, part), { recursive: true });
  for (const file of ['package.json', 'tsconfig.json', 'tsconfig.check.json', 'vitest.config.ts'])
    cpSync(join(root, file), join(copy, file));
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'), 'dir');
  const apply = (name: string, ...more: readonly string[]) =>
    run('git', ['apply', '--whitespace=nowarn', ...more, join(root, 'test/examples', name)]);
  for (const name of examples) apply(name, '--check');
  for (const name of examples) apply(name);
  run(process.execPath, ['scripts/build.mjs']);
}, 300_000);

function run(program: string, values: readonly string[], status = 0): string {
  const env = { ...process.env, NO_COLOR: '1', COLUMNS: '140' };
  const done = spawnSync(program, values, { cwd: copy, env, encoding: 'utf8' });
  expect([done.status, done.status === status ? '' : done.stdout + done.stderr]).toEqual([
    status,
    '',
  ]);
  return done.stdout + done.stderr;
}

const runTests = (file: string) =>
  run(process.execPath, ['node_modules/vitest/vitest.mjs', 'run', '--project', 'unit', file]);
const program = (values: readonly string[], status = 0) =>
  run(process.execPath, ['dist/bundle/cli/main.js', ...values], status);

/** The files that a patch touches, and how many lines it adds to each. */
function touched(name: string): Record<string, number> {
  const lines: Record<string, number> = {};
  let file = '';
  for (const line of readFileSync(join(root, 'test/examples', name), 'utf8').split('\n')) {
    const path = /^\+\+\+ b\/(.+)$/.exec(line)?.[1];
    if (path !== undefined) lines[(file = path)] = 0;
    else if (line.startsWith('+')) lines[file] = (lines[file] ?? 0) + 1;
  }
  return lines;
}

describe('the worked examples', () => {
  it('add a finding with one file, its import and a line in the list, and its test', () => {
    const files = touched('finding.patch');
    expect(Object.keys(files).sort()).toEqual([
      'src/core/findings/image/huge-animation.ts',
      'src/core/findings/image/index.ts',
      'test/core/findings/huge-animation.test.ts',
    ]);
    expect(files['src/core/findings/image/index.ts']).toBe(2);
    expect(runTests('test/core/findings')).toContain('huge-animation.test.ts');
  });

  it('add an option with one line', () => {
    expect(touched('option.patch')).toEqual({ 'src/cli/commands/rank.ts': 1 });
    expect(program(['rank', '--help'])).toMatch(/--least +Leave out rows .* \[0\]/);
    expect(program(['rank', '--least', 'many'], 2)).toContain(
      '--least: expected a whole number from 0 to 1,000,000,000, found "many"',
    );
    for (const shell of ['bash', 'zsh', 'fish'])
      expect(program(['completion', shell])).toContain('least');
  });

  it('add a form of output with one file and an entry in the table', () => {
    const files = touched('form.patch');
    expect(Object.keys(files).sort()).toEqual([
      'src/cli/forms/rank.ts',
      'src/output/tsv/rank.ts',
      'test/output/tsv/rank.test.ts',
    ]);
    expect(files['src/cli/forms/rank.ts']).toBeLessThanOrEqual(4);
    expect(program(['rank', '--help'])).toContain('--tsv');
    expect(program(['rank', '--tsv', '--csv'], 2)).toContain('only one form of output');
    runTests('test/output/tsv');
  });
});
