// The time from the call to the first answer about one page, on real templates: `survey` without encodes, and `survey` with
// them and `rank`, each against a bare loop that loads the same page in the same views and scrolls through it. All are
// processes of their own, run in turn; only their ratios are claimed.
//
//   node bench/first.mjs [rounds]
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median } from 'simple-statistics';
import { serveTemplate } from './templates.mjs';

const rounds = Number(process.argv[2] ?? 3);
const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
const bareLoop = fileURLToPath(new URL('./bare-loop.mjs', import.meta.url));

for (const name of ['agency', 'creative', 'landing-page']) {
  const site = await serveTemplate(name);
  const times = { bare: [], crawl: [], ranked: [] };
  for (let round = 0; round < rounds; round++) {
    times.bare.push(await timed(() => run(bareLoop, [site.start, ...site.hosts])));
    times.crawl.push(await timed(() => survey(['--no-encode'])));
    times.ranked.push(await timed(() => survey([], ['rank', '--top', '5'])));
  }
  site.close();
  const ratio = (one) => median(one.map((time, at) => time / times.bare[at])).toFixed(2);
  const seconds = (values) => `${(median(values) / 1000).toFixed(1)} s`;
  console.log(
    `${name}: bare loop ${seconds(times.bare)}; without encodes ${seconds(times.crawl)}, ${ratio(times.crawl)} times it; ranked with encodes ${seconds(times.ranked)}, ${ratio(times.ranked)} times it`,
  );

  async function survey(options, then) {
    const workspace = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
    const maps = site.hosts.flatMap((mapping) => ['--map-host', mapping]);
    try {
      await run(program, ['survey', site.start, '--workspace', workspace, ...maps, ...options]);
      if (then) await run(program, [...then, '--workspace', workspace]);
    } finally {
      rmSync(workspace, { recursive: true, force: true });
    }
  }
}

async function run(script, options) {
  const child = spawn(process.execPath, [script, ...options], { stdio: 'ignore' });
  const [status] = await once(child, 'exit');
  if (status !== 0) throw new Error(`${script} ${options.join(' ')} ended with ${status}`);
}

async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}
