import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect } from 'vitest';
import { setTimeout as after } from 'node:timers/promises';
import { temporaryFolder } from '../support/folder.js';
import { oneView, outcomeOf, programFile, run, runJson, start } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { TestServer } from '../support/server.js';
import { attack, page } from './attack.js';

/** So many pages, each with pictures of its own. */
const pages = 9;

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

/** Milliseconds, evenly spread and the same in every run. */
const moments = (count: number, longest: number) =>
  Array.from({ length: count }, (_, at) => Math.round((longest * (at + 1)) / (count + 1)));

/** How often a survey is killed; more where the environment asks for it. */
const kills = Number(process.env['LYNX_KILLS'] ?? 14);

/** Kills a call after so many milliseconds, unless it is done by then. */
async function killed(call: readonly string[], moment: number): Promise<void> {
  const child = start(call, { cwd });
  const ended = once(child, 'exit');
  const isOver = await Promise.race([ended.then(() => true), after(moment, false)]);
  if (!isOver) child.kill('SIGKILL');
  await ended;
}

describe('accidents', () => {
  for (const moment of moments(kills, 9_000))
    attack('held', `a survey that is killed after ${moment} ms, and resumed`, async () => {
      const workspace = `killed-${moment}`;
      await killed(survey(workspace, '--json'), moment);
      const file = join(cwd, workspace, 'workspace.sqlite');
      const begun = existsSync(file)
        ? await run(['surveys', '--json', '--workspace', workspace], { cwd })
        : undefined;
      const { surveys = [] } = JSON.parse(begun?.stdout || '{}') as {
        surveys?: { finishedAt: string | null }[];
      };
      if (surveys.length === 0) await runJson(survey(workspace), { cwd });
      else if (surveys[0]!.finishedAt === null)
        await runJson(['survey', '--resume', '--workspace', workspace], { cwd });
      expect(await ranked(workspace)).toBe(undisturbed);
    });

  attack('held', 'what killed programs left behind is gone after the next run', async () => {
    const child = start(survey('left', '--json'), { cwd });
    await after(2_500);
    child.kill('SIGKILL');
    await once(child, 'exit');
    await runJson(['survey', '--resume', '--workspace', 'left'], { cwd });
    expect(
      readdirSync(tmpdir()).filter((name) => name.startsWith(`zealous-lynx-${child.pid}-`)),
    ).toEqual([]);
    const drafts = readdirSync(join(cwd, 'left'), { recursive: true, encoding: 'utf8' });
    expect(drafts.filter((name) => name.endsWith('.part'))).toEqual([]);
    expect(readdirSync(join(cwd, 'left/leases'))).toEqual([]);
  });

  for (const moment of moments(6, 4_000))
    attack('held', `a refit that is killed after ${moment} ms, and made again`, async () => {
      const call = (out: string) => [
        'refit',
        '--workspace',
        'whole',
        '--out',
        out,
        '--no-prove',
        '--review',
        '0',
      ];
      if (!existsSync(join(cwd, 'refitted'))) await runJson(call('refitted'), { cwd });
      const workspace = `whole-${moment}`;
      cpSync(join(cwd, 'whole'), join(cwd, workspace), { recursive: true });
      const again = call(`killed-refit-${moment}`).with(2, workspace);
      await killed(again, moment);
      await runJson(again, { cwd });
      const filesOf = (folder: string) =>
        readdirSync(join(cwd, folder), { recursive: true, encoding: 'utf8' })
          .filter((name) => /\.(?:jpg|png|webp|avif)$/.test(name))
          .sort()
          .map((name) => [name, readFileSync(join(cwd, folder, name)).toString('base64')]);
      expect(filesOf(`killed-refit-${moment}`)).toEqual(filesOf('refitted'));
    });

  for (const moment of moments(5, 3_000))
    attack('held', `a survey of what has changed that is killed after ${moment} ms`, async () => {
      const workspace = `changed-${moment}`;
      cpSync(join(cwd, 'whole'), join(cwd, workspace), { recursive: true });
      const again = ['survey', '--changed-since', 'kites', '--label', 'kites'];
      await killed([...again, '--workspace', workspace], moment);
      const { surveys } = await runJson<{ surveys: { finishedAt: string | null }[] }>(
        ['surveys', '--workspace', workspace],
        { cwd },
      );
      const isBegun = surveys.length > 1;
      if (!isBegun) await runJson([...again, '--workspace', workspace], { cwd });
      else if (surveys[1]!.finishedAt === null)
        await runJson(['survey', '--resume', '--workspace', workspace], { cwd });
      expect(await ranked(workspace)).toBe(undisturbed);
    });

  for (const moment of moments(5, 5_000))
    attack('held', `loads that are killed after ${moment} ms`, async () => {
      const workspace = `loads-${moment}`;
      cpSync(join(cwd, 'whole'), join(cwd, workspace), { recursive: true });
      const clock = [
        ...['clock', `${site.origin}/1/`, '--network', 'fibre', '--runs', '2'],
        ...['--workspace', workspace, '--label', 'timed'],
      ];
      await killed(clock, moment);
      // What was begun is in nobody's way: neither in a history, nor of the next loads.
      const { status } = await run(['history', '--workspace', workspace], { cwd });
      expect(status).toBe(0);
      const { runs } = await runJson<{ runs: unknown[] }>(clock, { cwd });
      expect(runs).toHaveLength(2);
      const again = await run(['compare', 'timed', 'timed', '--workspace', workspace], { cwd });
      expect(again.status).toBe(0);
    });

  attack('held', 'a database that somebody else holds for eight seconds', async () => {
    cpSync(join(cwd, 'whole'), join(cwd, 'held'), { recursive: true });
    const database = new Database(join(cwd, 'held/workspace.sqlite'));
    database.exec('BEGIN IMMEDIATE');
    const renamed = run(['surveys', 'rename', 'kites', 'held', '--workspace', 'held'], { cwd });
    await after(8_000);
    database.exec('ROLLBACK');
    database.close();
    expect((await renamed).status).toBe(0);
  });

  attack('held', 'Ctrl-C, and once more at once', async () => {
    const child = start(survey('twice', '--json'), { cwd });
    const ended = outcomeOf(child);
    await after(2_500);
    child.kill('SIGINT');
    await after(20);
    child.kill('SIGINT');
    const began = performance.now();
    expect((await ended).status).toBe(130);
    expect(performance.now() - began).toBeLessThan(3_000);
    await runJson(['survey', '--resume', '--workspace', 'twice'], { cwd });
    expect(await ranked('twice')).toBe(undisturbed);
  });

  attack('told', 'a workspace that may be read and not written', async () => {
    if (process.getuid?.() !== 0)
      return process.stderr.write('only root can become somebody else here\n') as never;
    cpSync(join(cwd, 'whole'), join(cwd, 'foreign'), { recursive: true });
    await once(spawn('chmod', ['-R', 'a+rX,go-w', cwd]), 'exit');
    const nobody = { uid: 65534, gid: 65534, cwd, encoding: 'utf8' } as const;
    for (const call of [['rank'], ['surveys', 'rename', 'kites', 'mine'], ['history']]) {
      const { status, stderr } = spawnSync(
        process.execPath,
        [programFile, ...call, '--workspace', 'foreign'],
        { ...nobody, env: { PATH: process.env['PATH'], HOME: cwd, NO_COLOR: '1' } },
      );
      expect([status, stderr]).toEqual([
        3,
        expect.stringMatching(/^zealous-lynx: the workspace foreign .* \[WORKSPACE\]\n$/),
      ]);
    }
  });

  attack('held', 'bodies with flipped bytes, cut off and empty', async () => {
    cpSync(join(cwd, 'whole'), join(cwd, 'damaged'), { recursive: true });
    const bodies = readdirSync(join(cwd, 'damaged/bodies'), { recursive: true, encoding: 'utf8' })
      .map((name) => join(cwd, 'damaged/bodies', name))
      .filter((path) => statSync(path).isFile())
      .sort();
    bodies.forEach((path, at) => {
      const body = readFileSync(path);
      if (at % 4 === 0) body[body.length >> 1]! ^= 0xff;
      if (at % 4 < 3)
        writeFileSync(path, at % 4 === 1 ? '' : body.subarray(0, at % 4 === 2 ? 50 : undefined));
    });
    const out = [
      'refit',
      '--workspace',
      'damaged',
      '--out',
      'mended',
      '--no-prove',
      '--review',
      '0',
    ];
    const { files } = await runJson<{ files: { path: string }[] }>(out, { cwd });
    expect(files.length).toBeGreaterThan(5);
    for (const { path } of files) {
      const { info } = await sharp(join(cwd, 'mended', path)).toBuffer({ resolveWithObject: true });
      expect(info.width).toBeGreaterThan(0);
    }
    const { check } = await runJson<{ check: { damaged: number; database: string[] } }>(
      ['surveys', 'check', '--workspace', 'damaged'],
      { cwd },
    );
    // Those that refit had no use for are found now.
    expect(check.database).toEqual([]);
    const clean = await runJson<{ check: { damaged: number } }>(
      ['surveys', 'check', '--workspace', 'damaged'],
      { cwd },
    );
    expect(clean.check.damaged).toBe(0);
  });

  attack('told', 'two programs at one survey, and one that deletes under another', async () => {
    cpSync(join(cwd, 'whole'), join(cwd, 'shared'), { recursive: true });
    const child = start(survey('shared', '--json').with(5, 'second'), { cwd });
    const ended = outcomeOf(child);
    await after(3_000);
    const deleted = await run(['surveys', 'delete', 'kites', '--workspace', 'shared'], { cwd });
    const resumed = await run(
      ['survey', '--resume', '--survey', 'second', '--workspace', 'shared'],
      { cwd },
    );
    for (const { status, stderr } of [deleted, resumed])
      expect([status, stderr]).toEqual([
        3,
        expect.stringMatching(
          /another program is at work on survey-2 \(process \d+\) – wait .* \[BUSY\]/,
        ),
      ]);
    expect((await ended).status).toBe(0);
    const again = await run(['surveys', 'delete', 'kites', '--workspace', 'shared'], { cwd });
    expect(again.status).toBe(0);
  });

  attack('told', 'a full disk', async () => {
    const disk = join(cwd, 'small');
    mkdirSync(disk);
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=600k', 'tmpfs', disk]);
    if (mounted.status !== 0)
      return process.stderr.write('no small disk can be mounted here\n') as never;
    try {
      const { status, stdout, stderr } = await run(survey('small/workspace', '--json'), { cwd });
      expect([status, stderr], stdout).toEqual([
        3,
        expect.stringMatching(/the disk is full|No space left|disk is full/),
      ]);
      expect(stderr).not.toMatch(/UNEXPECTED/);
    } finally {
      spawnSync('umount', [disk]);
    }
  });

  attack('told', 'places that cannot be written to', async () => {
    writeFileSync(join(cwd, 'file'), 'x');
    for (const place of ['/proc/x', '/dev/null/x', 'file', '/dev/full/x'])
      for (const call of [
        ['refit', '--workspace', 'whole', '--out', place, '--no-prove'],
        ['report', '--workspace', 'whole', '--out', `${place}/r.html`],
        ['survey', `${site.origin}/`, '--workspace', place],
      ]) {
        const began = performance.now();
        const { status, stderr } = await run(call, { cwd });
        expect([2, 3], `${call.join(' ')}: ${stderr}`).toContain(status);
        expect(stderr.trim().split('\n').at(-1)).toMatch(
          /^zealous-lynx: .* \[(?:OUTPUT|WORKSPACE|USAGE|SYSTEM)\]$/,
        );
        expect(performance.now() - began).toBeLessThan(20_000);
      }
  });
});
