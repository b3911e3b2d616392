// A HAR file of 20,000 entries read and drawn by the program, from its start to its end, beside a bare program that
// only parses the same file. Both are run in turn.
//
//   node bench/har.mjs [entries] [rounds]
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median } from 'simple-statistics';
import { runToEnd } from './run-to-end.mjs';

const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));

if (process.argv[2] === 'bare') JSON.parse(readFileSync(process.argv[3], 'utf8'));
else await measure(Number(process.argv[2] ?? 20_000), Number(process.argv[3] ?? 3));

async function measure(entries, rounds) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  try {
    const file = join(folder, 'big.har');
    writeFileSync(file, JSON.stringify(harOf(entries)));
    const [drawn, parsed] = [[], []];
    for (let round = 0; round < rounds; round++) {
      const svg = join(folder, 'waterfall.svg');
      drawn.push(await runToEnd([program, 'clock', '--har', file, '--svg', svg, '--quiet']));
      parsed.push(await runToEnd([fileURLToPath(import.meta.url), 'bare', file]));
    }
    const middle = (runs, name) => median(runs.map((one) => one[name]));
    console.log(`${entries} entries, ${rounds} rounds`);
    for (const [name, runs] of [
      ['read and drawn', drawn],
      ['only parsed', parsed],
    ])
      console.log(
        `${name}: ${middle(runs, 'seconds').toFixed(2)} s, ${Math.round(middle(runs, 'megabytes'))} MB`,
      );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A recording as browsers write them: hundreds of hosts, a dozen headers on both sides of each entry. */
function harOf(entries) {
  const began = Date.parse('2026-04-01T10:00:00.000Z');
  const headers = Array.from({ length: 12 }, (_, index) => ({
    name: `x-kite-${index}`,
    value: 'a line of forty-eight metres, and a tail of nine',
  }));
  const entryOf = (_, index) => ({
    pageref: 'page_1',
    startedDateTime: new Date(began + index * 3).toISOString(),
    time: 90,
    request: {
      method: 'GET',
      url: `http://host-${index % 300}.brindlebay.test/img/kite-${index}.jpg`,
      httpVersion: 'h2',
      headers,
    },
    response: {
      status: index % 50 === 0 ? 404 : 200,
      httpVersion: 'h2',
      headers,
      content: { size: 40_000, mimeType: index % 3 === 0 ? 'text/javascript' : 'image/jpeg' },
      bodySize: 40_000,
    },
    timings: { blocked: 5, dns: -1, connect: 20, ssl: 10, send: 1, wait: 34, receive: 30 },
  });
  return {
    log: {
      version: '1.2',
      pages: [
        {
          id: 'page_1',
          title: 'http://brindlebay.test/',
          startedDateTime: new Date(began).toISOString(),
          pageTimings: { onLoad: 50_000 },
        },
      ],
      entries: Array.from({ length: entries }, entryOf),
    },
  };
}
