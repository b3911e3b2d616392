// Pages a second of one survey with one, two and four workers, on pages that wait a second for the network. The workers are
// processes of one machine with one tab each, begun before the clock runs; so is the PostgreSQL server, from Debian's
// package. What two cores can do bounds the last of them: the share of their time that was used is told.
//
//   node bench/fleet.mjs [rounds] [pages]
import { spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:http';
import { mkdtempSync, rmSync } from 'node:fs';
import { availableParallelism, cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { median } from 'simple-statistics';
import { Workspace } from '../dist/src/store/workspace.js';
import { startServer } from './postgres.mjs';

const rounds = Number(process.argv[2] ?? 3);
const pages = Number(process.argv[3] ?? 24);
const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
const wait = 1_000;

const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
const server = await startServer(folder);
const site = createServer(({ url }, answer) => {
  if (url === '/robots.txt') return answer.writeHead(404).end();
  const links = Array.from({ length: pages }, (_, at) => `<a href="/page-${at}.html">${at}</a>`);
  const body = `<!doctype html><title>${url}</title><h1>Kite ${url}</h1>${url === '/' ? links.join(' ') : ''}`;
  setTimeout(() => answer.setHeader('content-type', 'text/html').end(body), wait);
});
await new Promise((resolve) => site.listen(0, '127.0.0.1', resolve));
const start = `http://127.0.0.1:${site.address().port}/`;
const rates = new Map([1, 2, 4].map((workers) => [workers, []]));
const busy = new Map([1, 2, 4].map((workers) => [workers, []]));
try {
  for (let round = 0; round < rounds; round++)
    for (const workers of rates.keys()) {
      const [rate, used] = await measure(workers, `round-${round}-${workers}`);
      rates.get(workers).push(rate);
      busy.get(workers).push(used);
    }
  const of = (workers) => median(rates.get(workers));
  for (const workers of rates.keys())
    console.log(
      `${workers} worker(s): ${of(workers).toFixed(2)} pages a second, ${(of(workers) / of(1)).toFixed(2)} times one, ` +
        `${Math.round(100 * median(busy.get(workers)))} % of ${availableParallelism()} cores`,
    );
} finally {
  site.closeAllConnections();
  site.close();
  await server.close();
  rmSync(folder, { recursive: true, force: true });
}

/** @returns pages a second between the first page that was kept and the last, and the share of the cores that was used */
async function measure(workers, label) {
  const address = server.database();
  const children = Array.from({ length: workers }, (_, at) =>
    spawn(
      process.execPath,
      [program, 'worker', '--name', `worker-${at}`, '--tabs', '1', '--workspace', address],
      { stdio: 'ignore' },
    ),
  );
  const workspace = Workspace.open(address);
  try {
    while (workspace.fleet.store.workers().length < workers) await pause(100);
    const call = ['survey', start, '--hand-over', '--label', label, '--view', 'laptop'];
    const more = ['--pages', String(pages), '--workspace', address];
    spawnSync(process.execPath, [program, ...call, ...more], { stdio: 'ignore' });
    const { id } = workspace.surveys.find(label);
    // Every worker has opened its browser by the time that it has had a page.
    const warm = 1 + 2 * workers;
    await until(() => workspace.fleet.store.progress(id).pages >= warm);
    const [began, usedBefore] = [performance.now(), usedTime()];
    const from = workspace.fleet.store.progress(id).pages;
    await until(() => workspace.fleet.store.progress(id).pages >= pages);
    const seconds = (performance.now() - began) / 1000;
    const used = (usedTime() - usedBefore) / 1000 / seconds / availableParallelism();
    return [(pages - from) / seconds, used];
  } finally {
    workspace.close();
    for (const child of children) child.kill('SIGTERM');
    await Promise.all(
      children.map((child) => new Promise((resolve) => child.once('exit', resolve))),
    );
  }
}

async function until(isTrue) {
  while (!isTrue()) await pause(50);
}

/** Milliseconds that all cores were busy since the machine started. */
function usedTime() {
  return cpus().reduce(
    (sum, { times }) => sum + times.user + times.sys + times.nice + times.irq,
    0,
  );
}
