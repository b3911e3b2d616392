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
const pages = 12;
/** How often a statement may fail before it works again; what fails for two tasks at once fails once. */
const times = 2;

/** Codes of a server that goes away, and of one that refuses a statement. */
const [leaves, refuses] = ['57P01', 'P0001'];

/** Statements that tell the queue, or the leader, what became of a task. */
const statements = {
  'the queue hears that a task is done': [['DELETE ON graphile_worker._private_jobs', leaves]],
  'the queue hears that a task failed, whose answer was refused': [
    ['UPDATE OF answer ON task', refuses],
    ['UPDATE OF last_error ON graphile_worker._private_jobs', leaves],
  ],
} as const;

/** A ranking without what differs from one survey to the next. */
interface Ranked {
  readonly rows: unknown;
  readonly totals: unknown;
}

describe.skipIf(missing)('a worker whose server breaks off', () => {
  let server: PostgresServer;
  let site: SlowSite;
  let cwd: string;

  beforeAll(async () => {
    cwd = temporaryFolder(afterAll);
    server = await startPostgres();
    site = await startSlowSite({ pages, wait: 100 });
  });
  afterAll(async () => {
    site?.close();
    await server?.close();
  });

  it.each(Object.entries(statements))('goes on when it happens as %s', async (_, broken) => {
    const address = server.database();
    const on = ['--workspace', address];
    const survey = (label: string, ...more: readonly string[]) =>
      run(['survey', site.start, '--label', label, ...oneView, ...on, ...more], { cwd });
    const ranked = (label: string) =>
      runJson<Ranked>(['rank', '--survey', label, '--json', ...on], { cwd });
    await survey('alone');
    const worker = start(['worker', '--tabs', '2', ...on], { cwd });
    const ended = outcomeOf(worker);
    while (server.ask(address, 'SELECT count(*) FROM worker') === '0') await pause(50);
    for (const [at, [statement, code]] of broken.entries())
      server.ask(
        address,
        `CREATE SEQUENCE failed_${at};
         GRANT ALL ON SEQUENCE failed_${at} TO PUBLIC;
         CREATE FUNCTION fail_${at}() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
           IF nextval('public.failed_${at}') <= ${times} THEN
             RAISE EXCEPTION 'not now' USING ERRCODE = '${code}';
           END IF;
           RETURN coalesce(NEW, OLD);
         END $$;
         CREATE TRIGGER fail BEFORE ${statement} FOR EACH ROW EXECUTE FUNCTION fail_${at}();`,
      );
    await survey('shared', '--hand-over');
    const isFinished = `SELECT count(finished_at) FROM survey WHERE label = 'shared'`;
    while (worker.exitCode === null && server.ask(address, isFinished) === '0') await pause(200);
    worker.kill('SIGTERM');
    const { status, stdout, stderr } = await ended;
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    expect(stdout).toContain(`Finished shared: ${pages} pages\n`);
    // Each has failed at least once.
    for (const at of broken.keys())
      expect(server.ask(address, `SELECT is_called FROM failed_${at}`)).toBe('t');
    const [alone, shared] = [await ranked('alone'), await ranked('shared')];
    expect(shared.totals).toEqual(alone.totals);
    expect(shared.rows).toEqual(alone.rows);
  });
});
