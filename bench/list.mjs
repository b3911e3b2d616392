// A survey that is begun with a list of a million pages: until it stands in the workspace, and how much memory that takes.
// Beside it, in turn, a bare loop that parses the same addresses, keeps each once, and adds them to a table. The host answers
// nobody, so that no page is visited.
//
//   node bench/list.mjs [addresses] [rounds]
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'libsql';
import { median } from 'simple-statistics';
import { runToEnd } from './run-to-end.mjs';

const addresses = Number(process.argv[2] ?? 1_000_000);
const rounds = Number(process.argv[3] ?? 3);
const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));

if (process.argv[2] === 'bare') bareLoop(process.argv[3], process.argv[4]);
else await measure();

async function measure() {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const list = join(folder, 'pages.csv');
  const rows = Array.from(
    { length: addresses },
    (_, at) => `http://127.0.0.1:9/kites/${at % 977}/kite-${at}.html,${at % 5_000}`,
  );
  writeFileSync(list, `url,visits\n${rows.join('\n')}\n`);
  const times = { program: [], bare: [] };
  let peak = 0;
  try {
    for (let round = 0; round < rounds; round++) {
      const workspace = join(folder, `workspace-${round}`);
      const survey = ['survey', '--list', list, '--pages', '1', '--workspace', workspace];
      const own = await runToEnd([program, ...survey], 3);
      times.program.push(own.seconds);
      peak = Math.max(peak, own.megabytes);
      const table = join(folder, `bare-${round}.sqlite`);
      const bare = await runToEnd([fileURLToPath(import.meta.url), 'bare', list, table]);
      times.bare.push(bare.seconds);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const [own, bare] = [median(times.program), median(times.bare)];
  console.log(`${addresses} addresses, medians of ${rounds}`);
  console.log(
    `survey ${own.toFixed(1)} s, bare loop ${bare.toFixed(1)} s: ${(own / bare).toFixed(2)}`,
  );
  console.log(`peak of the survey: ${Math.round(peak)} MB`);
}

function bareLoop(list, file) {
  const database = new Database(file);
  database.exec('CREATE TABLE due (url TEXT PRIMARY KEY, visits INTEGER) STRICT');
  const add = database.prepare('INSERT OR IGNORE INTO due VALUES (?, ?)');
  const known = new Set();
  database.exec('BEGIN');
  for (const line of readFileSync(list, 'utf8').split('\n').slice(1)) {
    if (line === '') continue;
    const comma = line.lastIndexOf(',');
    const url = new URL(line.slice(0, comma)).href;
    if (known.has(url)) continue;
    known.add(url);
    add.run(url, Number(line.slice(comma + 1)));
  }
  database.exec('COMMIT');
  database.close();
}
