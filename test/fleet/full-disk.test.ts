import { spawnSync } from 'node:child_process';
import { appendFileSync, mkdirSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const missing = providePackages(serverPackages);
const pages = 24;
const isRoot = process.getuid?.() === 0;

/** A ranking without what differs from one survey to the next. */
interface Ranked {
  readonly rows: unknown;
  readonly totals: unknown;
}

describe.skipIf(missing)('a worker whose disk is full', () => {
  let server: PostgresServer;
  let site: SlowSite;
  let cwd: string;
  let address: string;
  let disk: string;

  beforeAll(async () => {
    cwd = temporaryFolder(afterAll);
    disk = join(cwd, 'disk');
    mkdirSync(disk);
    server = await startPostgres();
    site = await startSlowSite({ pages, wait: 300 });
    address = server.database();
  });
  afterAll(async () => {
    site?.close();
    await server?.close();
    spawnSync('umount', ['-l', disk]);
  });

  const on = () => ['--workspace', address];
  const ranked = (label: string) =>
    runJson<Ranked>(['rank', '--survey', label, '--json', ...on()], { cwd });

  /** Writes until nothing goes in any more. */
  const fill = () => {
    const block = Buffer.alloc(2 ** 20);
    try {
      for (;;) appendFileSync(join(disk, 'full'), block);
    } catch (error) {
      expect((error as NodeJS.ErrnoException).code).toBe('ENOSPC');
    }
    for (let size = 2 ** 19; size > 0; size >>= 1)
      try {
        appendFileSync(join(disk, 'full'), Buffer.alloc(size));
      } catch {
        // Half as much may still go in.
      }
    expect(statfsSync(disk).bavail).toBe(0);
  };

  it.skipIf(!isRoot)('loses no page, and spoils none', async () => {
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=300m', 'none', disk]);
    expect(mounted.stderr.toString()).toBe('');
    await run(['survey', site.start, '--label', 'alone', ...oneView, ...on()], { cwd });
    const env = { TMPDIR: disk, HOME: disk };
    const full = start(['worker', '--name', 'full', ...on()], { cwd, env });
    const ended = outcomeOf(full);
    while (server.ask(address, 'SELECT count(*) FROM worker') === '0') await pause(50);
    site.forget();
    await run(['survey', site.start, '--hand-over', '--label', 'shared', ...oneView, ...on()], {
      cwd,
    });
    // It is in the middle of its work.
    while (site.visits().size < 6) await pause(20);
    fill();
    const sound = start(['worker', '--name', 'sound', ...on()], { cwd });
    const end = outcomeOf(sound);
    const isFinished = `SELECT count(finished_at) FROM survey WHERE label = 'shared'`;
    while (server.ask(address, isFinished) === '0') await pause(200);
    for (const worker of [full, sound]) worker.kill('SIGTERM');
    const outcomes = await Promise.all([ended, end]);
    expect(outcomes.map(({ status }) => status)).toEqual([0, 0]);
    expect(outcomes.map(({ stdout }) => stdout).join()).toContain(
      `Finished shared: ${pages} pages\n`,
    );
    expect(server.ask(address, 'SELECT count(error) FROM page')).toBe('0');
    const [alone, shared] = [await ranked('alone'), await ranked('shared')];
    expect(shared.totals).toEqual(alone.totals);
    expect(shared.rows).toEqual(alone.rows);
  });
});
