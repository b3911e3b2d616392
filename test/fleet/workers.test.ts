import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { ChildProcess } from 'node:child_process';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import type { Outcome } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { password, serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';
import { startSlowSite } from './slow-site.js';
import type { SlowSite } from './slow-site.js';

const missing = providePackages(serverPackages);
/** How many workers are killed at most; `LYNX_KILLS` asks for more. */
const mostKills = Number(process.env['LYNX_KILLS'] ?? 6);
/** Two are kept between one kill and the next. */
const pages = Math.max(24, 3 * mostKills);

interface Worker {
  readonly process: ChildProcess;
  readonly outcome: Promise<Outcome>;
}

interface Fleet {
  readonly surveys: readonly {
    readonly label: string;
    readonly pages: number;
    readonly isLed: boolean;
  }[];
  readonly workers: readonly {
    readonly name: string;
    readonly pid: number;
    readonly doing: readonly string[];
  }[];
}

describe.skipIf(missing)('workers on one workspace', () => {
  let server: PostgresServer;
  let site: SlowSite;
  let cwd: string;
  let address: string;
  let calm: unknown;
  const working = new Set<Worker>();

  const on = () => ['--workspace', address];
  const surveyCall = (label: string, ...more: readonly string[]) => [
    ...['survey', site.start, '--label', label, ...oneView, ...on()],
    ...(more.includes('--pages') ? more : ['--pages', '1000', ...more]),
  ];
  const startWorker = (name: string, env: Record<string, string> = {}): Worker => {
    const process = start(['worker', '--name', name, '--tabs', '2', ...on()], { cwd, env });
    const worker = { process, outcome: outcomeOf(process) };
    working.add(worker);
    return worker;
  };
  const end = async (worker: Worker, signal: NodeJS.Signals = 'SIGTERM') => {
    worker.process.kill(signal);
    working.delete(worker);
    return worker.outcome;
  };
  const fleet = () => runJson<Fleet>(['worker', '--list', ...on()], { cwd });
  const isFinished = (label: string) =>
    server.ask(address, `SELECT count(finished_at) FROM survey WHERE label = '${label}'`) === '1';
  const finished = async (label: string) => {
    while (!isFinished(label)) await pause(200);
  };
  const countOf = (label: string) =>
    Number(
      server.ask(
        address,
        `SELECT count(*) FROM page JOIN survey s ON s.id = survey_id WHERE label = '${label}'`,
      ),
    );
  /** All that a survey found, page by page, and what it comes to; without what differs between any two. */
  const found = async (label: string) => {
    const { survey: _, ...ranking } = await runJson<{ survey: object }>(
      ['rank', '--survey', label, '--top', '1000', ...on()],
      { cwd },
    );
    const rows = server.ask(
      address,
      `SELECT string_agg(concat_ws('|', url, final_url, status, depth, page_group, error, bytes_by_type,
         (SELECT count(*) FROM visit WHERE page_id = page.id)), chr(10) ORDER BY url)
       FROM page JOIN survey s ON s.id = survey_id WHERE label = '${label}'`,
    );
    const due = server.ask(
      address,
      `SELECT string_agg(concat_ws('|', url, due.depth), chr(10) ORDER BY url)
       FROM due JOIN survey s ON s.id = survey_id WHERE label = '${label}'`,
    );
    return { ranking, rows, due };
  };

  beforeAll(async () => {
    server = await startPostgres();
    site = await startSlowSite({ pages, wait: 400 });
    cwd = temporaryFolder(afterAll);
    address = server.database();
    const { status, stderr } = await run(surveyCall('calm'), { cwd });
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    calm = await found('calm');
  });
  afterAll(async () => {
    site.close();
    await server.close();
  });
  afterEach(async () => {
    for (const worker of working) await end(worker, 'SIGKILL');
    site.forget();
  });

  it('visit every page once, and find what one machine finds', async () => {
    site.forget();
    const workers = [startWorker('one'), startWorker('two')];
    const { status, stdout } = await run(surveyCall('shared', '--hand-over'), { cwd });
    expect([status, stdout]).toEqual([
      0,
      expect.stringMatching(/^Handed over shared to \d workers?/),
    ]);
    await finished('shared');
    expect([...site.visits().values()]).toEqual(Array.from({ length: pages }, () => 1));
    expect(await found('shared')).toEqual(calm);
    const told = await Promise.all(workers.map((worker) => end(worker)));
    expect(told.map((one) => one.status)).toEqual([0, 0]);
    const tasks = told.map(({ stdout: words }) =>
      Number(/Stopped after (\d+) task/.exec(words)?.[1]),
    );
    // All pages, and the encodes of four pictures; both had their share.
    expect(tasks[0]! + tasks[1]!).toBeGreaterThanOrEqual(pages);
    expect(Math.min(...tasks)).toBeGreaterThan(3);
    expect(told.map(({ stdout: words }) => words).join('')).toMatch(
      /Leads shared[^]*Finished shared: \d+ pages/,
    );
    expect((await fleet()).workers).toEqual([]);
  });

  it('help a program that surveys by itself', async () => {
    const helper = startWorker('helper');
    while ((await fleet()).workers.length === 0) await pause(200);
    site.forget();
    const { status } = await run(surveyCall('helped'), { cwd });
    expect(status).toBe(0);
    expect([...site.visits().values()]).toEqual(Array.from({ length: pages }, () => 1));
    expect(await found('helped')).toEqual(calm);
    const { stdout } = await end(helper);
    expect(Number(/Stopped after (\d+) task/.exec(stdout)?.[1])).toBeGreaterThan(3);
  });

  it('keep the pace of one host together', async () => {
    for (const name of ['one', 'two']) startWorker(name);
    while ((await fleet()).workers.length < 2) await pause(200);
    site.forget();
    // So long that what a busy machine takes from a turn to a request is little beside it.
    const pace = 3_000;
    await run(surveyCall('paced', '--hand-over', '--pace', String(pace), '--pages', '6'), { cwd });
    await finished('paced');
    const times = site.asked.filter(({ path }) => /^\/(?:page-|$)/.test(path)).map(({ at }) => at);
    const gaps = times.slice(1).map((at, place) => at - times[place]!);
    expect(times).toHaveLength(6);
    // A request that takes a moment to go out is followed sooner by the next.
    expect((times.at(-1)! - times[0]!) / gaps.length).toBeGreaterThan(pace * 0.85);
    expect(Math.min(...gaps)).toBeGreaterThan(pace * 0.4);
  });

  it('lose nothing and do nothing twice, however they are killed', async () => {
    const generator = xoroshiro128plus(20_261_127);
    const below = (most: number) => uniformInt(generator, 0, most - 1);
    await run(surveyCall('killed', '--hand-over'), { cwd });
    let workers = [startWorker('one'), startWorker('two')];
    for (let kill = 0; !isFinished('killed') && kill < mostKills; kill++) {
      const before = countOf('killed');
      while (countOf('killed') < before + 2 && !isFinished('killed')) await pause(100);
      const victim = workers[below(workers.length)]!;
      await pause(below(600));
      await end(victim, 'SIGKILL');
      workers = [...workers.filter((one) => one !== victim), startWorker(`after-${kill}`)];
    }
    await finished('killed');
    expect(await found('killed')).toEqual(calm);
    expect(
      server.ask(
        address,
        'SELECT count(*) FROM (SELECT survey_id, url FROM page GROUP BY 1, 2 HAVING count(*) > 1) twice',
      ),
    ).toBe('0');
  });

  it('need no clocks that agree', async () => {
    const shifted = (minutes: number) => ({
      NODE_OPTIONS: `--import ${new URL('shifted-clock.mjs', import.meta.url)}`,
      CLOCK_SHIFT: String(minutes * 60_000),
    });
    const began = Date.now();
    await run(surveyCall('skewed', '--hand-over'), { cwd, env: shifted(11) });
    for (const minutes of [-7, 9]) startWorker(`at ${minutes}`, shifted(minutes));
    while (countOf('skewed') < 5) await pause(100);
    const { surveys, workers } = await fleet();
    expect(surveys).toMatchObject([{ label: 'skewed', isLed: true }]);
    // Those that an earlier test killed are believed for a while.
    expect(workers.filter(({ name }) => name.startsWith('at '))).toHaveLength(2);
    await finished('skewed');
    expect(await found('skewed')).toEqual(calm);
    const { survey } = await runJson<{ survey: { startedAt: string; finishedAt: string } }>(
      ['rank', '--survey', 'skewed', ...on()],
      { cwd },
    );
    const [startedAt, finishedAt] = [survey.startedAt, survey.finishedAt].map(Date.parse);
    expect(startedAt).toBeGreaterThanOrEqual(began);
    expect(finishedAt).toBeGreaterThan(startedAt!);
    expect(finishedAt).toBeLessThanOrEqual(Date.now());
  });

  it('help a program that goes on when the server crashes', async () => {
    const helper = startWorker('helper');
    while ((await fleet()).workers.length === 0) await pause(200);
    const process = start(surveyCall('restarted'), { cwd });
    const outcome = outcomeOf(process);
    for (const kept of [3, 8]) {
      while (process.exitCode === null && countOf('restarted') < kept) await pause(100);
      await server.crash();
    }
    const { status, stderr } = await outcome;
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    expect(await found('restarted')).toEqual(calm);
    expect((await end(helper)).status).toBe(0);
  });

  it('go on when the server crashes', async () => {
    const workers = [startWorker('one'), startWorker('two')];
    await run(surveyCall('crashed', '--hand-over'), { cwd });
    while (countOf('crashed') < 5) await pause(100);
    const { stdout } = await run(['surveys', ...on()], { cwd });
    expect(stdout).toMatch(/^crashed .* running /m);
    await server.crash();
    await finished('crashed');
    expect(await found('crashed')).toEqual(calm);
    const told = await Promise.all(workers.map((worker) => end(worker)));
    for (const { status, stderr } of told)
      expect([status, stderr]).toEqual([0, expect.any(String)]);
  });

  it('have what lets them in from their own environment, and none of it in the database', async () => {
    const host = new URL(site.start).hostname;
    const secret = 'kites:up-in-the-air';
    const process = start(
      ['worker', '--name', 'insider', '--tabs', '2', '--basic', `${host}=$LOGIN`, ...on()],
      { cwd, env: { LOGIN: secret } },
    );
    const worker = { process, outcome: outcomeOf(process) };
    working.add(worker);
    await run(surveyCall('inside', '--hand-over', '--pages', '3'), { cwd });
    await finished('inside');
    const logins = site.asked
      .filter(({ path }) => path.startsWith('/page-'))
      .map(({ login }) => login);
    expect(new Set(logins)).toEqual(new Set([`Basic ${Buffer.from(secret).toString('base64')}`]));
    const tables = ['survey', 'fleet_survey', 'worker', 'task'];
    for (const table of tables)
      expect(
        server.ask(address, `SELECT count(*) FROM ${table} t WHERE t::text LIKE '%up-in-the-air%'`),
      ).toBe('0');
  });

  it('refuse what they would measure otherwise, with the reason', async () => {
    await run(surveyCall('other', '--hand-over'), { cwd });
    server.ask(
      address,
      "UPDATE fleet_survey SET measures = 'zealous-lynx 9.9.9, Chromium 1.2.3' WHERE survey_id = (SELECT max(id) FROM survey)",
    );
    const { status, stderr } = await run(['worker', ...on()], { cwd });
    expect(status).toBe(3);
    expect(stderr).toMatch(
      /other is measured with zealous-lynx 9\.9\.9, Chromium 1\.2\.3, and this machine has .*same versions/,
    );
    const state = await fleet();
    expect(schemaErrors('fleet', state)).toEqual([]);
    expect(state.surveys).toMatchObject([{ label: 'other', isLed: false, pages: 0 }]);
    const { stdout } = await run(['worker', '--list', '--metrics-file', 'fleet.prom', ...on()], {
      cwd,
    });
    expect(stdout).toMatch(/other +waits for a worker +0 of 1/);
    const metrics = readFileSync(join(cwd, 'fleet.prom'), 'utf8');
    expect(metrics).toMatch(/^zealous_lynx_fleet_survey_led\{survey="other"\} 0$/m);
    expect(metrics.endsWith('# EOF\n')).toBe(true);
    await run(['surveys', 'delete', 'other', ...on()], { cwd });
    expect((await fleet()).surveys).toEqual([]);
  });

  it('need no more rights than the manual gives them', async () => {
    const manual = readFileSync(new URL('../../docs/fleet.md', import.meta.url), 'utf8');
    const grants = /```sql\n(GRANT CONNECT[^`]*)```/.exec(manual)![1]!;
    const database = new URL(address).pathname.slice(1);
    server.ask(address, `CREATE ROLE hand LOGIN PASSWORD '${password}'`);
    server.ask(address, grants.replace('kites', database));
    const owned = address;
    address = owned.replace('analyst:', 'hand:');
    try {
      startWorker('hand');
      const { status } = await run(surveyCall('by-hand', '--hand-over', '--pages', '3'), { cwd });
      expect(status).toBe(0);
      await finished('by-hand');
      expect(countOf('by-hand')).toBe(3);
      for (const worker of working) expect((await end(worker)).status).toBe(0);
    } finally {
      address = owned;
    }
  });
});
