import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, start } from '../support/program.js';
import { serve } from '../support/server.js';

/** Every process below one, by its number. */
function descendants(pid: number): number[] {
  const rows = execFileSync('ps', ['-e', '-o', 'pid=,ppid='], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number) as [number, number]);
  const below = (parent: number): number[] =>
    rows.filter(([, of]) => of === parent).flatMap(([child]) => [child, ...below(child)]);
  return below(pid);
}

/** Whether a process is still at work: one that has ended and was not waited for is not. */
function isRunning(pid: number): boolean {
  try {
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
}

it('leaves no process and nothing half-written when it is killed while pages are loaded', async () => {
  const cwd = temporaryFolder();
  const body = await photograph(900, 600).jpeg({ quality: 95 }).toBuffer();
  const { origin } = await serve({
    '/': {
      body: `<!doctype html><link rel="icon" href="data:,">${Array.from({ length: 8 }, (_, at) => `<img src="/${at}.jpg" width="90">`).join('')}`,
    },
    ...Object.fromEntries(
      Array.from({ length: 8 }, (_, at) => [`/${at}.jpg`, { type: 'image/jpeg', body }]),
    ),
  });
  const fast = ['--fix', 'none', '--network', 'fast-mobile', '--view', 'laptop'];
  const child = start(['trial', `${origin}/`, ...fast, '--runs', '20'], { cwd });
  let told = '';
  child.stderr!.setEncoding('utf8').on('data', (text: string) => (told += text));
  await expect.poll(() => told, { timeout: 60_000 }).toContain('loading');
  const started = descendants(child.pid!);
  expect(started.length).toBeGreaterThan(0);
  child.kill('SIGKILL');
  await expect
    .poll(() => started.filter(isRunning), { timeout: 20_000, interval: 250 })
    .toEqual([]);
  const workspace = join(cwd, '.zealous-lynx');
  const kept = readdirSync(join(workspace, 'recordings'), { recursive: true, encoding: 'utf8' });
  // Drafts have another name than what they are to become.
  const whole = kept.filter((name) => /\.har$/.test(name));
  expect(whole).toHaveLength(1);
  const recording = join(workspace, 'recordings', whole[0]!);
  expect(JSON.parse(readFileSync(recording, 'utf8'))).toHaveProperty('log');
  const files = readdirSync(cwd, { recursive: true, encoding: 'utf8' });
  expect(files.filter((name) => /\.(?:pem|crt|key)$/.test(name))).toEqual([]);
  // What was recorded is of use, without the site.
  const again = await run(
    ['trial', '--har', recording, ...fast, '--runs', '1', '--most-runs', '1'],
    { cwd },
  );
  expect([again.status, existsSync(recording)]).toEqual([0, true]);
});
