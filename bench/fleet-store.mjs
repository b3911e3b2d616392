// How the store of a workspace grows with a survey: generated visits of pages with 20 images in two views are kept as whoever
// leads a survey keeps them, with 128 pages under way, in a database on a server and in a folder. Another process stores what
// the workers do, the facts of files and their encodes. Told at each quarter: pages a second, bytes a page, what the leader
// has in memory, how long the frontier takes to hand out a page and to learn its links, and how long it takes to
// read back what is due, as a new leader does.
//
//   node bench/fleet-store.mjs [pages] [new files of a page] [server|folder]
import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setImmediate as turn } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Frontier } from '../dist/src/crawl/frontier.js';
import { Workspace } from '../dist/src/store/workspace.js';
import { KeepPages } from '../dist/src/tasks/survey/keep-pages.js';
import { addFile, pageOf, start, views } from './made-survey.mjs';
import { startServer } from './postgres.mjs';

const [first] = process.argv.slice(2);
if (first === 'files') storeFiles(process.argv[3], Number(process.argv[4]));
else await run(Number(first ?? 20_000), Number(process.argv[3] ?? 5), process.argv[4]);

/** What the workers store. */
function storeFiles(place, files) {
  const workspace = Workspace.open(place);
  for (let file = 0; file < files; file++) {
    addFile(workspace, file);
    if (file % 200 === 199) process.send(file + 1);
  }
  workspace.close();
  process.send(files);
  process.disconnect();
}

async function run(pages, own, only) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const server = await startServer(folder);
  try {
    const places = { server: server.database(), folder: join(folder, 'workspace') };
    for (const [name, place] of Object.entries(places))
      if (!only || only === name) await grow(name, place, pages, own);
  } finally {
    await server.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function grow(name, place, pages, own) {
  const perVisit = 20;
  const workspace = Workspace.open(place);
  const plan = { given: [start], hosts: [start], scope: { pages } };
  const { id } = workspace.surveys.begin('grown', new Date().toISOString(), [start], views, plan);
  const frontier = new Frontier([start], { pages: Infinity });
  frontier.begin([{ url: start, visits: null }]);
  workspace.pages.addFound(id, frontier.takeFound());
  const keeping = new KeepPages(workspace.pages, id, () => {});
  const files = fork(fileURLToPath(import.meta.url), [
    'files',
    place,
    String(pages * own + perVisit),
  ]);
  const wake = new Set();
  let ready = 0;
  files.on('message', (count) => {
    ready = count;
    for (const resume of wake) resume();
    wake.clear();
  });

  let page = 0;
  let inFrontier = 0;
  const visitNext = async (end) => {
    while (page < end) {
      const at = page++;
      while (ready < at * own + perVisit) await new Promise((resume) => wake.add(resume));
      const asked = performance.now();
      const { url, depth } = frontier.next();
      // Three links that nobody knew, and five that every page has.
      const links = [1, 2, 3].map((more) => `${start}kites/${at * 3 + more}/`);
      frontier.add([...links, ...[1, 2, 3, 4, 5].map((one) => `${start}kites/${one}/`)], depth + 1);
      const found = frontier.takeFound();
      inFrontier += performance.now() - asked;
      // Some images of each page are its own; the others are on many.
      const shown = Array.from({ length: perVisit }, (_, image) =>
        image < own ? at * own + image : image,
      );
      await keeping.keep({ record: pageOf(url, at % 40, shown, null), found });
    }
  };
  for (let quarter = 1; quarter <= 4; quarter++) {
    const before = page;
    const [began, frontierBefore] = [performance.now(), inFrontier];
    const end = Math.round((pages * quarter) / 4);
    await Promise.all(Array.from({ length: 128 }, () => visitNext(end)));
    const took = performance.now() - began;
    await turn();
    const { database } = await workspace.size();
    const read = performance.now();
    const due = quarter === 4 || pages <= 100_000 ? workspace.pages.leftover(id).due.length : 0;
    const readTook = performance.now() - read;
    console.log(
      `${name}: ${page} pages, ${Math.round(((page - before) * 1000) / took)} a second, ` +
        `${Math.round(database / page)} bytes a page, ` +
        `leader ${(process.memoryUsage.rss() / 1e9).toFixed(2)} GB, ` +
        `frontier ${(((inFrontier - frontierBefore) * 1000) / (page - before)).toFixed(0)} µs a page` +
        (due ? `, ${due} due read in ${(readTook / 1000).toFixed(1)} s` : ''),
    );
  }
  workspace.close();
}
