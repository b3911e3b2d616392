// `rank` on a generated workspace: how long the program takes from its start to its end, and its peak memory, beside
// a bare program that only reads and parses what the same workspace holds. Both are run in turn. Before them comes the
// closing of the survey: it is sealed and, where it is large, summed up, by a first `rank`. A survey of millions of
// placements is so large that the bare program is left out.
//
//   node bench/rank.mjs [placements] [rounds]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'libsql';
import { median } from 'simple-statistics';
import { madeSurvey, views } from './made-survey.mjs';
import { runToEnd } from './run-to-end.mjs';

const perVisit = 50;

if (process.argv[2] === 'bare') bare(process.argv[3]);
else await measure(Number(process.argv[2] ?? 100_000), Number(process.argv[3] ?? 3));

async function measure(placements, rounds) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  try {
    const pages = placements / (perVisit * views.length);
    await madeSurvey(folder, { pages, perVisit, files: Math.max(perVisit, pages * 5) });
    const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
    const closed = await runToEnd([program, 'rank', '--workspace', folder, '--quiet']);
    const isHuge = placements > 2_000_000;
    const ranked = [];
    const read = [];
    for (let round = 0; round < rounds; round++) {
      ranked.push(await runToEnd([program, 'rank', '--workspace', folder, '--quiet']));
      if (!isHuge) read.push(await runToEnd([fileURLToPath(import.meta.url), 'bare', folder]));
    }
    const middle = (runs, name) => median(runs.map((one) => one[name]));
    console.log(`${placements} placements, ${rounds} rounds`);
    console.log(
      `closing, and the first rank: ${closed.seconds.toFixed(1)} s, ${Math.round(closed.megabytes)} MB`,
    );
    console.log(
      `rank: ${middle(ranked, 'seconds').toFixed(2)} s, ${Math.round(middle(ranked, 'megabytes'))} MB`,
    );
    if (isHuge) return;
    console.log(
      `only reading and parsing them: ${middle(read, 'seconds').toFixed(2)} s, ${Math.round(middle(read, 'megabytes'))} MB`,
    );
    console.log(
      `rank / reading: ${(middle(ranked, 'seconds') / middle(read, 'seconds')).toFixed(2)}`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function bare(folder) {
  const database = new Database(join(folder, 'workspace.sqlite'));
  let placements = 0;
  for (const { facts } of database.prepare('SELECT facts FROM visit').iterate())
    placements += JSON.parse(facts).placements.length;
  if (placements === 0) throw new Error('nothing was read');
}
