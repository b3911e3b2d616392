// What each command that reads a survey takes, from the start of the program to its end, and its peak memory: on a generated
// survey of two views with 50 images a page, in a folder or in a database on a server.
//
//   node bench/commands.mjs [placements] [server|folder]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { madeSurvey, start, views } from './made-survey.mjs';
import { startServer } from './postgres.mjs';
import { runToEnd } from './run-to-end.mjs';

const placements = Number(process.argv[2] ?? 1_000_000);
const onServer = process.argv[3] !== 'folder';
const perVisit = 50;

const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const server = onServer ? await startServer(folder) : undefined;
try {
  const place = server ? server.database() : join(folder, 'workspace');
  const pages = placements / (perVisit * views.length);
  const began = performance.now();
  await madeSurvey(place, { pages, perVisit, files: pages * 5 });
  tell('made by the bench', (performance.now() - began) / 1000);
  const calls = {
    'closing, and the first rank': ['rank'],
    rank: ['rank'],
    'rank --by page': ['rank', '--by', 'page'],
    'rank --view phone': ['rank', '--view', 'phone'],
    'explain, of an image': ['explain', `${start}img/kite-7.jpg`],
    'report --lean': ['report', '--lean', '--out', join(folder, 'report.html')],
    'gate --suggest': ['gate', '--suggest'],
    history: ['history'],
    'history, once more': ['history'],
    'refit --dry-run': ['refit', '--dry-run', '--no-prove', '--out', join(folder, 'refit')],
  };
  for (const [name, call] of Object.entries(calls)) {
    const { seconds, megabytes } = await runToEnd([
      program,
      ...call,
      '--workspace',
      place,
      '--quiet',
    ]);
    tell(name, seconds, megabytes);
  }
} finally {
  await server?.close();
  rmSync(folder, { recursive: true, force: true });
}

function tell(what, seconds, megabytes) {
  const memory = megabytes === undefined ? '' : `, ${Math.round(megabytes)} MB`;
  console.log(`${what}: ${seconds.toFixed(1)} s${memory}`);
}
