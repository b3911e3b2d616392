import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { afterAll, beforeAll, expect } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { oneView, run, runJson } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { TestServer } from '../support/server.js';
import { page } from './attack.js';

/** So many pages, each with pictures of its own. */
const pages = 9;

/** A site that was surveyed undisturbed, into the workspace `whole`; made before the tests of a file. */
export function surveyedDays() {
  let site: TestServer;
  const tidy: (() => Promise<void>)[] = [];
  let cwd: string;
  let undisturbed: string;

  beforeAll(async () => {
    const pictures: [string, { type: string; body: Buffer }][] = [];
    for (let at = 0; at <= 2 * pages; at++) {
      const body = await photograph(300 + 10 * at, 200)
        .jpeg({ quality: 95 })
        .toBuffer();
      pictures.push([`/${at}.jpg`, { type: 'image/jpeg', body }]);
    }
    const links = Array.from({ length: pages }, (_, at) => `<a href="/${at}/">day ${at}</a>`).join(
      '',
    );
    // One picture is larger than all that is shown beside it: which content is the largest is then no matter of chance.
    const shown = (at: number) =>
      [2 * at + 1, 2 * at + 2, 0]
        .map((one) => `<img src="/${one}.jpg" width="${one === 0 ? 290 : 60 + at}" alt="">`)
        .join('');
    site = await serve(
      {
        '/': { body: page(links) },
        ...Object.fromEntries(
          Array.from({ length: pages }, (_, at) => [
            `/${at}/`,
            { body: page(`<h1>Day ${at}</h1>${links}${shown(at)}`), wait: 60 },
          ]),
        ),
        ...Object.fromEntries(pictures),
      },
      (end) => void tidy.push(end),
    );
    cwd = temporaryFolder(() => {});
    await runJson(
      ['survey', `${site.origin}/`, ...oneView, '--label', 'kites', '--workspace', 'whole'],
      { cwd },
    );
    undisturbed = await ranked('whole');
  });

  afterAll(async () => {
    for (const end of tidy) await end();
  });

  /** A ranking as it is printed, without what is another one in each run: numbers and times of surveys. */
  async function ranked(workspace: string): Promise<string> {
    const call = ['rank', '--by', 'image', '--top', '1000', '--json', '--workspace', workspace];
    const { status, stdout, stderr } = await run(call, { cwd });
    expect([status, stderr]).toEqual([0, expect.any(String)]);
    return stdout.replace(/"(?:id|startedAt|finishedAt)": (?:\d+|"[^"]*")/g, '');
  }

  const survey = (workspace: string, ...more: readonly string[]) => [
    ...['survey', `${site.origin}/`, ...oneView, '--label', 'kites', '--workspace', workspace],
    ...more,
  ];

  /** Waits until a survey has begun in a workspace, and a little longer. */
  const underWay = async (workspace: string) => {
    const leases = join(cwd, workspace, 'leases');
    const isBegun = () =>
      existsSync(leases) && readdirSync(leases).some((name) => name.startsWith('survey'));
    while (!isBegun()) await after(20);
    await after(500);
  };

  return {
    underWay,
    ranked,
    survey,
    /** Where the site is served. */
    origin: () => site.origin,
    folder: () => cwd,
    /** The ranking of the survey that nothing disturbed. */
    undisturbed: () => undisturbed,
  };
}

/** Milliseconds, evenly spread and the same in every run. */
export const moments = (count: number, longest: number) =>
  Array.from({ length: count }, (_, at) => Math.round((longest * (at + 1)) / (count + 1)));
