import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { Workspace } from '../../dist/src/store/workspace.js';
import { crewOf } from '../../dist/src/tasks/fleet/crew.js';
import { judgeSurvey } from '../../dist/src/tasks/sums/judge-survey.js';
import { sumSurvey } from '../../dist/src/tasks/sums/sum-survey.js';
import { oneView, outcomeOf, run, start } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const missing = providePackages(serverPackages);
const pages = 16;

describe.skipIf(missing)('the sums of a survey on a server', () => {
  let server: PostgresServer;
  let site: SlowSite;
  let cwd: string;
  let address: string;

  const on = () => ['--workspace', address];
  const ranked = (...values: string[]) =>
    run(['rank', '--json', '--quiet', ...values, ...on()], { cwd });

  beforeAll(async () => {
    server = await startPostgres();
    site = await startSlowSite({ pages, wait: 0 });
    cwd = temporaryFolder(afterAll);
    address = server.database();
    const { status, stderr } = await run(
      ['survey', site.start, '--label', 'kites', ...oneView, ...on()],
      { cwd },
    );
    if (status !== 0) throw new Error(stderr);
  }, 120_000);
  afterAll(async () => {
    site.close();
    await server.close();
  });

  it('are made by workers, part by part, and are what the whole survey says', async () => {
    const told = (text: string) =>
      JSON.parse(text, (key, value: unknown) => (key === 'finishedAt' ? null : value)) as object;
    const whole = (await ranked()).stdout;
    const worker = start(['worker', '--name', 'adder', '--tabs', '2', ...on()], { cwd });
    const outcome = outcomeOf(worker);
    const workspace = Workspace.open(address);
    const head = workspace.surveys.find('kites');
    const lease = workspace.leases.take(`survey-${head.id}`);
    try {
      // As at its end, when this program leads it.
      server.ask(address, 'UPDATE survey SET finished_at = NULL');
      // As if it had hundreds of thousands of placements: a part for each page.
      workspace.pages.seal(head.id, 1);
      expect(workspace.pages.parts(head)).toBe(pages);
      const { store } = workspace.fleet!;
      while (store.workers().length === 0) await pause(100);
      const [{ measures } = { measures: '' }] = store.workers();
      const crew = crewOf(workspace, measures, false).begin(head, {
        ...{ policy: defaultPolicy, views: head.views, tabs: 1 },
        scope: { pages, perGroup: pages, include: [], exclude: [], within: 'host', query: 'keep' },
      });
      const judged = await judgeSurvey(workspace, head, defaultPolicy, { crew });
      await sumSurvey(workspace, judged, defaultPolicy, { crew });
      await crew.close(true);
      workspace.surveys.finish(head.id, workspace.now());
    } finally {
      lease.release();
      workspace.close();
      worker.kill('SIGTERM');
    }
    const { stdout } = await outcome;
    // While the program that leads it is at its first part, the worker has two; then whoever is free.
    expect(Number(/Stopped after (\d+) task/.exec(stdout)?.[1])).toBeGreaterThanOrEqual(2);
    const { stdout: summed, stderr } = await ranked();
    expect(stderr).toBe('');
    expect(told(summed)).toEqual(told(whole));
    expect(server.ask(address, "SELECT count(*) FROM summed WHERE name LIKE 'part/%'")).toBe('0');
    expect(Number(server.ask(address, 'SELECT count(*) FROM summed'))).toBeGreaterThan(6);
  }, 60_000);

  it('are kept in a workspace of the version before, too', async () => {
    const old = server.database();
    const call = ['surveys', '--workspace', old];
    Workspace.open(old).close();
    server.ask(
      old,
      `DROP TABLE summed; DROP TABLE sealed; UPDATE workspace SET version = 10;
       CREATE TABLE sealed (survey_id bigint PRIMARY KEY, columns bytea, lists text, format integer)`,
    );
    const { status, stderr } = await run(call, { cwd });
    expect([status, stderr]).toEqual([0, '']);
    expect(server.ask(old, 'SELECT version FROM workspace')).toBe('11');
    expect(server.ask(old, 'SELECT count(part) FROM sealed')).toBe('0');
    expect(server.ask(old, 'SELECT count(*) FROM summed')).toBe('0');
  });

  it('go with the survey', async () => {
    await run(['surveys', 'delete', 'kites', ...on()], { cwd });
    expect(server.ask(address, 'SELECT count(*) FROM summed')).toBe('0');
    expect(server.ask(address, 'SELECT count(*) FROM sealed')).toBe('0');
  });
});
