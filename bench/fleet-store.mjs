// How the store of a workspace grows with a survey: generated visits of pages with 20 images in two views are kept one after
// the other, in a database on a server and in a folder, a quarter of the pages at a time and both in turn. Told at each
// quarter: pages a second, bytes a page, and how long it takes to read back what is due, as a new leader does.
//
//   node bench/fleet-store.mjs [pages]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Workspace } from '../dist/src/store/workspace.js';
import { addFile, addPage, start, views } from './made-survey.mjs';
import { startServer } from './postgres.mjs';

const pages = Number(process.argv[2] ?? 20_000);
const perVisit = 20;
/** Pages that each page is found to link to, and that nobody knew. */
const linked = 3;
const templates = 40;

const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const server = await startServer(folder);
try {
  const sides = [
    { name: 'server', workspace: Workspace.open(server.database()) },
    { name: 'folder', workspace: Workspace.open(join(folder, 'workspace')) },
  ];
  for (const side of sides) {
    const { surveys, pages: store } = side.workspace;
    const plan = { given: [start], hosts: [start], scope: { pages } };
    side.id = surveys.begin('grown', new Date().toISOString(), [start], views, plan).id;
    store.addFound(side.id, { due: [{ url: start, depth: 0, visits: null }], skipped: [] });
    side.files = 0;
  }
  for (let quarter = 0; quarter < 4; quarter++)
    for (const side of sides) {
      const began = performance.now();
      for (let at = 0; at < pages / 4; at++) keep(side, (quarter * pages) / 4 + at);
      const seconds = (performance.now() - began) / 1000;
      const { database } = await side.workspace.size();
      const asked = performance.now();
      const { due } = side.workspace.pages.leftover(side.id);
      const read = performance.now() - asked;
      const done = ((quarter + 1) * pages) / 4;
      console.log(
        `${side.name}: ${done} pages, ${Math.round(pages / 4 / seconds)} a second, ` +
          `${Math.round(database / done)} bytes a page, ${due.length} due read in ${Math.round(read)} ms`,
      );
    }
  for (const { workspace } of sides) workspace.close();
} finally {
  await server.close();
  rmSync(folder, { recursive: true, force: true });
}

function keep(side, page) {
  // Five images of each page are its own; the others are on many.
  const own = Array.from({ length: perVisit }, (_, at) => (at < 5 ? page * 5 + at : at));
  for (; side.files < (page + 1) * 5 + perVisit; side.files++) addFile(side.workspace, side.files);
  const url = page === 0 ? start : `${start}kites/${page}/`;
  addPage(side.workspace, side.id, url, page % templates, own, null, {
    due: Array.from({ length: linked }, (_, at) => ({
      url: `${start}kites/${page * linked + at + 1}/`,
      depth: 1 + Math.floor(Math.log(page + 1) / Math.log(linked)),
      visits: null,
    })),
    skipped: [],
  });
}
