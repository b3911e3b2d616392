import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runJson, start } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { providePackages } from '../support/packages.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answers, TestServer } from '../support/server.js';
import { password, serverPackages, startPostgres } from './postgres-server.js';
import type { PostgresServer } from './postgres-server.js';

const missing = providePackages(serverPackages);

/** Pages of the site; each has a picture of its own and links to the next ones. */
const pages = 8;

interface Ranked {
  readonly survey: { readonly finishedAt: string; readonly startedAt: string; readonly id: number };
}

describe.skipIf(missing)('the program with a workspace on a server', () => {
  let server: PostgresServer;
  let site: TestServer;
  let cwd: string;
  let address: string;

  beforeAll(async () => {
    server = await startPostgres();
    cwd = temporaryFolder(afterAll);
    address = server.database();
    const answers: Record<string, Answers[string]> = {};
    for (let at = 0; at < pages; at++) {
      const links = [2 * at + 1, 2 * at + 2].map(
        (next) => `<a href="/page-${next}.html">${next}</a>`,
      );
      const picture = await photograph(600 + 40 * at, 400, at)
        .jpeg({ quality: 95 })
        .toBuffer();
      answers[at === 0 ? '/' : `/page-${at}.html`] = {
        body: `<!doctype html><title>Kite ${at}</title><h1>Kite ${at}</h1>
          <img src="/kite-${at}.jpg" alt="" width="300">${links.join(' ')}`,
        wait: 150,
      };
      answers[`/kite-${at}.jpg`] = { type: 'image/jpeg', body: picture };
    }
    site = await serve(answers, afterAll);
  });
  afterAll(() => server.close());

  const on = (place: string) => ['--workspace', place];
  const survey = (place: string, label: string) => [
    ...['survey', `${site.origin}/`, '--label', label, ...oneView, ...on(place)],
  ];
  /** What a survey comes to, without what differs between any two. */
  const ranked = async (place: string, label: string) => {
    const call = ['rank', '--survey', label, ...on(place)];
    const { survey: head, ...rest } = await runJson<Ranked>(call, { cwd });
    const {
      finishedAt,
      startedAt: _,
      id: __,
      ...same
    } = head as Ranked['survey'] & { label: string };
    expect(finishedAt).not.toBeNull();
    return { ...same, ...rest };
  };

  it('says of a site what it says with one in a folder, and keeps no word of the password', async () => {
    for (const place of [address, 'folder']) {
      const { status, stdout, stderr } = await run(survey(place, 'kites'), { cwd });
      expect(stderr + stdout).not.toContain(password);
      expect(status).toBe(0);
    }
    expect(await ranked(address, 'kites')).toEqual(await ranked('folder', 'kites'));
    const dump = server.ask(address, 'SELECT string_agg(plan, $$$$) FROM survey');
    expect(dump).not.toContain(password);
  });

  it('goes on when the server crashes in the middle of a survey', async () => {
    const running = start(survey(address, 'crashed'), { cwd });
    const outcome = outcomeOf(running);
    const countOf = () =>
      Number(
        server.ask(
          address,
          "SELECT count(*) FROM page JOIN survey s ON s.id = survey_id WHERE label = 'crashed'",
        ),
      );
    for (const least of [2, 5]) {
      while (countOf() < least && running.exitCode === null) await pause(50);
      await server.crash();
    }
    const { status, stderr } = await outcome;
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    const { label: _, ...crashed } = (await ranked(address, 'crashed')) as unknown as Record<
      string,
      unknown
    >;
    const { label: __, ...calm } = (await ranked(address, 'kites')) as unknown as Record<
      string,
      unknown
    >;
    expect(crashed).toEqual(calm);
  });

  it('does all that can be done with a survey', async () => {
    const place = on(address);
    const page = `${site.origin}/page-1.html`;
    const calls: readonly (readonly [call: readonly string[], words: RegExp])[] = [
      [['explain', page], /page-1/],
      [['clock', page, '--runs', '2', '--label', 'before', ...oneView], /before/],
      [['clock', page, '--runs', '2', '--label', 'after', ...oneView], /after/],
      [['compare', 'before', 'after', '--anyway'], /requests/],
      [['compare', 'kites', 'crashed'], /kites/],
      [['refit', '--out', 'refitted', '--survey', 'kites'], /refitted/],
      [['report', '--out', 'report.html'], /report\.html/],
      [['history'], /waste/i],
      [['surveys', 'rename', 'crashed', 'second'], /second/],
      [['surveys', 'check'], /sound|nothing/i],
      [['surveys', 'delete', 'second'], /1 survey/],
      [['surveys'], /kites/],
    ];
    for (const [call, words] of calls) {
      const { status, stdout, stderr } = await run([...call, ...place], { cwd });
      expect([call[0], status, stderr]).toEqual([call[0], 0, expect.any(String)]);
      expect(stdout).toMatch(words);
    }
    expect(server.ask(address, 'SELECT string_agg(label, $$ $$) FROM survey')).toBe('kites');
  });
});
