import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { contentHashOf } from '../../src/images/hash.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { animation, drawing, photograph, scene } from '../support/pictures.js';
import { oneView, outcomeOf, run, runHere, runJson, start } from '../support/program.js';
import type { RefitManifestDocument as Manifest } from '../support/refit-manifest.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

let cwd: string;
const count = 12;

/** A workspace with a survey of a page of many pictures. */
beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const pictures = await Promise.all(
    Array.from({ length: count }, async (_, at) => [
      `site/img/${at}.jpg`,
      await photograph(600, 400, at + 1)
        .jpeg({ quality: 95 })
        .toBuffer(),
    ]),
  );
  writeFiles(cwd, {
    'site/index.html': Array.from(
      { length: count },
      (_, at) => `<img src="/img/${at}.jpg" width="350" height="234" alt="">`,
    ).join(''),
    ...(Object.fromEntries(pictures) as Record<string, Buffer>),
  });
  await run(['survey', 'site', ...oneView], { cwd });
});

/** All files below a folder, as paths. */
function filesIn(folder: string): string[] {
  const entries = readdirSync(folder, { recursive: true, withFileTypes: true });
  return entries
    .filter((entry) => entry.isFile())
    .map(({ parentPath, name }) => join(parentPath, name));
}

function expectWhole(folder: string, { files, variants }: Manifest): void {
  for (const { path, resultHash } of [...files, ...variants])
    expect(contentHashOf(readFileSync(join(folder, path)))).toBe(resultHash);
  expect(filesIn(folder).filter((path) => path.endsWith('.part'))).toEqual([]);
}

describe('a refit in trouble', () => {
  it('leaves files of others alone, and changes nothing then', async () => {
    const theirs = join(cwd, 'theirs');
    mkdirSync(join(theirs, 'img'), { recursive: true });
    writeFileSync(join(theirs, 'img/3.jpg'), 'somebody else was here');
    const { files } = await runJson<Manifest>(['refit', '--out', 'x', '--dry-run'], { cwd });
    const path = files.find(({ path: one }) => one.startsWith('img/3.'))!.path;
    writeFileSync(join(theirs, path), 'somebody else was here');
    const before = filesIn(theirs);
    const told = await run(['refit', '--out', 'theirs'], { cwd });
    expect([told.status, told.stderr]).toEqual([
      3,
      expect.stringMatching(
        /was not written by refit and will not be overwritten – name an empty folder/,
      ),
    ]);
    expect(filesIn(theirs)).toEqual(before);
    expect(readFileSync(join(theirs, path), 'utf8')).toBe('somebody else was here');
    writeFileSync(join(cwd, 'x.json'), '{}');
    mkdirSync(join(cwd, 'odd'));
    writeFileSync(join(cwd, 'odd/manifest.json'), '{"format":"of something else"}');
    expect((await run(['refit', '--out', 'odd'], { cwd })).stderr).toContain(
      'manifest.json was not',
    );
  });

  it('never touches the originals, not even where they lie in the way', async () => {
    const before = filesIn(join(cwd, 'site')).map((path) => contentHashOf(readFileSync(path)));
    const told = await run(['refit', '--out', 'site'], { cwd });
    const after = filesIn(join(cwd, 'site'));
    for (const hash of before)
      expect(after.map((path) => contentHashOf(readFileSync(path)))).toContain(hash);
    // What is named otherwise may lie beside them.
    expect([0, 3]).toContain(told.status);
  });

  it('leaves nothing half written when it is killed, and goes on from there', async () => {
    const out = join(cwd, 'killed');
    const child = start(['refit', '--out', 'killed', '--review', '0'], { cwd });
    const ended = outcomeOf(child);
    while (!existsSync(join(out, 'img')) && child.exitCode === null) await pause(2);
    child.kill('SIGKILL');
    await ended;
    // As a run leaves it that is killed while it writes.
    mkdirSync(join(out, 'img'), { recursive: true });
    writeFileSync(join(out, 'img/0.webp.999999999-0.part'), 'half');
    writeFileSync(join(out, 'img/notes.999999999-0.part'), 'of somebody else');
    const named = existsSync(join(out, 'manifest.json'));
    const whole = await runJson<Manifest>(['refit', '--out', 'killed', '--review', '0'], { cwd });
    expect(named).toBe(true);
    const isOurs = whole.files.some(({ path }) => path === 'img/0.webp');
    rmSync(join(out, 'img/notes.999999999-0.part'));
    if (!isOurs) rmSync(join(out, 'img/0.webp.999999999-0.part'), { force: true });
    expectWhole(out, whole);
    expect(whole.files).toHaveLength(count);
  });

  it('stops on Ctrl-C, keeps what it encoded, and says how to go on', async () => {
    const other = temporaryFolder();
    const pictures = await Promise.all(
      Array.from({ length: 8 }, async (_, at) => [
        `camera/${at}.png`,
        await photograph(900, 700, at + 50)
          .png()
          .toBuffer(),
      ]),
    );
    writeFiles(other, Object.fromEntries(pictures) as Record<string, Buffer>);
    const call = ['refit', '--from', 'camera', '--out', 'ready', '--review', '0'];
    const child = start(call, { cwd: other });
    const ended = outcomeOf(child);
    child.stderr!.once('data', () => child.kill('SIGINT'));
    const { status, stderr } = await ended;
    expect(status).toBe(130);
    expect(stderr).toContain('stopped before anything was written – run it again');
    expect(existsSync(join(other, 'ready'))).toBe(false);
    const whole = await runJson<Manifest>(call, { cwd: other });
    expectWhole(join(other, 'ready'), whole);
  });

  const disk = canMount();
  it.skipIf(!disk)(
    'says that the disk is full, and completes the rest when there is room',
    async () => {
      const out = join(cwd, 'small');
      mkdirSync(out);
      const mount = (size: string, more: string[] = []) =>
        spawnSync('mount', [
          '-t',
          'tmpfs',
          '-o',
          [`size=${size}`, ...more].join(','),
          'tmpfs',
          out,
        ]);
      expect(mount('200k').status).toBe(0);
      try {
        const told = await run(['refit', '--out', 'small', '--review', '0'], { cwd });
        expect([told.status, told.stderr]).toEqual([
          3,
          expect.stringMatching(
            /small cannot be written to: ENOSPC.*correct that and run it again/,
          ),
        ]);
        expect(filesIn(out).length).toBeGreaterThan(1);
        expect(filesIn(out).filter((path) => path.endsWith('.part'))).toEqual([]);
        const left = JSON.parse(readFileSync(join(out, 'manifest.json'), 'utf8')) as Manifest;
        for (const { path, resultHash } of [...left.files, ...left.variants])
          if (existsSync(join(out, path)))
            expect(contentHashOf(readFileSync(join(out, path)))).toBe(resultHash);
        expect(mount('40m', ['remount']).status).toBe(0);
        const whole = await runJson<Manifest>(['refit', '--out', 'small', '--review', '0'], {
          cwd,
        });
        expect(whole.unchanged).toBeGreaterThan(0);
        expectWhole(out, whole);
      } finally {
        spawnSync('umount', [out]);
      }
    },
  );

  it('asks a host that answers no more for a few files alone, and says of all that they cannot be had', async () => {
    const folder = temporaryFolder();
    let isGone = false;
    const pictures = await Promise.all(
      Array.from({ length: 30 }, async (_, at) => {
        const body = await photograph(240, 160, at).jpeg().toBuffer();
        const answer = () => (isGone ? { hangUp: true } : { type: 'image/jpeg', body });
        return [`/${at}.jpg`, answer] as const;
      }),
    );
    const body = pictures.map(([path]) => `<img src="${path}" width="100">`).join('');
    const { origin, asked } = await serve({ '/': { body }, ...Object.fromEntries(pictures) });
    await run(['survey', `${origin}/`, '--no-bodies', ...oneView], { cwd: folder });
    isGone = true;
    const before = asked.length;
    const call = ['refit', '--out', 'new', '--no-prove', '--dry-run'];
    const { kept } = await runJson<Manifest>(call, { cwd: folder });
    expect(kept).toHaveLength(pictures.length);
    for (const { reason } of kept) expect(reason).toMatch(/^it could not be fetched again: /);
    // Four are asked for at a time, each as often as any request.
    expect(new Set(asked.slice(before)).size).toBeLessThan(8 + 4);
  });

  it('fetches again what a survey did not keep, and tells what has changed', async () => {
    const folder = temporaryFolder();
    const same = await photograph(450, 300, 7).jpeg().toBuffer();
    const old = await photograph(450, 300, 8).jpeg().toBuffer();
    const next = await photograph(450, 300, 9).jpeg().toBuffer();
    let times = 0;
    const answers = {
      '/': {
        body: '<img src="/same.jpg" width="200"><img src="/changed.jpg" width="200"><img src="/gone.jpg" width="200">',
      },
      '/same.jpg': { type: 'image/jpeg', body: same },
      '/changed.jpg': () => ({ type: 'image/jpeg', body: times > 0 ? next : old }),
      '/gone.jpg': () => (times > 0 ? undefined : { type: 'image/jpeg', body: next }),
    };
    const { origin } = await serve(answers);
    await run(['survey', `${origin}/`, '--no-bodies', ...oneView], { cwd: folder });
    times++;
    const { files, kept } = await runJson<Manifest>(['refit', '--out', 'new'], { cwd: folder });
    expect(files.map(({ originals }) => originals)).toEqual([[`${origin}/same.jpg`]]);
    expect(
      Object.fromEntries(kept.map(({ url, reason }) => [new URL(url).pathname, reason])),
    ).toEqual({
      '/changed.jpg': 'it has changed since the survey',
      '/gone.jpg': 'it could not be fetched again: the server returned 404',
    });
  });
});

/** Whether this machine lets the tests have a disk of their own. */
function canMount(): boolean {
  if (process.getuid?.() !== 0) return false;
  const folder = temporaryFolder(() => {});
  const done = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=64k', 'tmpfs', folder]);
  if (done.status === 0) spawnSync('umount', [folder]);
  return done.status === 0;
}

describe('refit --from', () => {
  it('refits a folder of pictures by policy alone', async () => {
    const folder = temporaryFolder();
    const twice = await scene(1800, 1200).jpeg({ quality: 95 }).toBuffer();
    writeFiles(folder, {
      'camera/beach.jpg': twice,
      'camera/copy of beach.jpg': twice,
      'camera/2026/tall.png': await scene(600, 3000).png().toBuffer(),
      'camera/2026/film.gif': await animation(500, 12),
      'camera/map.png': await drawing(900, 600).png({ palette: false }).toBuffer(),
      'camera/small.jpg': await scene(200, 100).jpeg({ quality: 10 }).toBuffer(),
      'camera/cut.jpg': twice.subarray(0, 9_000),
      'camera/notes.txt': 'no picture',
      'camera/.hidden/secret.jpg': twice,
    });
    const before = filesIn(join(folder, 'camera')).map((path) => [path, statSync(path).mtimeMs]);
    const call = ['refit', '--from', 'camera', '--out', 'ready', '--widths', '480,960,1600'];
    const manifest = await runJson<Manifest>(call, { cwd: folder });
    expect(schemaErrors('refit', manifest)).toEqual([]);
    expect(manifest.survey).toBeNull();
    const sizes = Object.fromEntries(
      manifest.files.map(({ path, to }) => [path, [to.width, to.height]]),
    );
    expect(sizes).toEqual({
      '2026/film.webp': [500, 500],
      '2026/tall.avif': [300, 1500],
      'beach.avif': [1500, 1000],
      'map.webp': [900, 600],
    });
    expect(manifest.files.find(({ path }) => path === 'beach.avif')!.originals).toEqual([
      'beach.jpg',
      'copy of beach.jpg',
    ]);
    expect(
      manifest.variants.filter(({ path }) => path.startsWith('beach')).map(({ path }) => path),
    ).toEqual(['beach.jpg', 'beach-480.avif', 'beach-480.jpg', 'beach-960.avif', 'beach-960.jpg']);
    expect(manifest.kept.map(({ url }) => url).sort()).toEqual(['cut.jpg', 'small.jpg']);
    expectWhole(join(folder, 'ready'), manifest);
    const after = filesIn(join(folder, 'camera')).map((path) => [path, statSync(path).mtimeMs]);
    expect(after).toEqual(before);
    const tall = await sharp(readFileSync(join(folder, 'ready/2026/tall.avif'))).metadata();
    expect([tall.width, tall.height]).toEqual([300, 1500]);

    const again = await runJson<Manifest>(call, { cwd: folder });
    expect(again.unchanged).toBe(again.files.length + again.variants.length);
  });

  it.each([
    [['--from', 'nowhere'], 'there is no folder nowhere'],
    [['--from', '.'], 'there are no pictures in .'],
    [['--from', '.', '--sheet', '/'], '--from works on a folder'],
    [['--widths', '480'], '--widths and --longest are for pictures in a folder'],
    [['--from', '.', '--widths', 'wide'], 'a whole number from 1 to 20,000'],
  ])('says what is wrong with %j', async (options, message) => {
    const folder = temporaryFolder();
    const told = await runHere(['refit', '--out', 'ready', ...options], { cwd: folder });
    expect([told.status, told.stderr]).toEqual([2, expect.stringContaining(message)]);
  });
});
