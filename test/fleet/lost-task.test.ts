import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startProxy } from './proxy.js';
import type { Proxy } from './proxy.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const missing = providePackages(serverPackages);
const pages = 12;

/** A ranking without what differs from one survey to the next. */
interface Ranked {
  readonly rows: unknown;
  readonly totals: unknown;
}

describe.skipIf(missing)('a task that the queue gave out, and that never arrived', () => {
  let server: PostgresServer;
  let proxy: Proxy;
  let site: SlowSite;
  let cwd: string;

  beforeAll(async () => {
    cwd = temporaryFolder(afterAll);
    server = await startPostgres();
    proxy = await startProxy(server.port);
    site = await startSlowSite({ pages, wait: 100 });
  });
  afterAll(async () => {
    site?.close();
    await proxy?.close();
    await server?.close();
  });

  it('is given out again', async () => {
    const address = server.database();
    const on = ['--workspace', address];
    const survey = (label: string) =>
      run(['survey', site.start, '--label', label, ...oneView, ...on], { cwd });
    const ranked = async (label: string) => {
      const { totals, rows } = await runJson<Ranked>(['rank', '--survey', label, ...on], { cwd });
      return { totals, rows };
    };
    await survey('alone');
    const worker = start(['worker', '--tabs', '2', '--workspace', proxy.through(address)], { cwd });
    const ended = outcomeOf(worker);
    while (server.ask(address, 'SELECT count(*) FROM worker') === '0') await pause(50);
    // The row of the queue has the task in it; this connection hears of it, and of no answer.
    proxy.cutAtAnswer('"kind":"visit"');
    const { status, stderr } = await survey('shared');
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    expect(proxy.isCut()).toBe(true);
    worker.kill('SIGTERM');
    expect((await ended).status).toBe(0);
    expect(await ranked('shared')).toEqual(await ranked('alone'));
  });
});
