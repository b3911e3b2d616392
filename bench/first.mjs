// The time from the call to the first answer about one page, on real templates: `survey` without encodes; `survey` with them,
// until it has ranked the images by one encode of each; and the same until all are searched and `rank` has run. Each against a
// bare loop that loads the same page in the same views and scrolls through it. All are processes of their own, run in turn;
// only their ratios are claimed.
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

// A style sheet of 250 kB that is as large as those of some themes with all that they can do.
const sites = [['agency'], ['creative'], ['landing-page'], ['agency', 5]];
for (const [name, more] of sites) {
  const site = await serveTemplate(name, more);
  const times = { bare: [], crawl: [], first: [], ranked: [] };
  for (let round = 0; round < rounds; round++) {
    times.bare.push(await timed(() => run(bareLoop, [site.start, ...site.hosts])));
    times.crawl.push(await timed(() => survey(['--no-encode'])));
    const began = performance.now();
    await survey([], ['rank', '--top', '5'], /^First estimate/m, () =>
      times.first.push(performance.now() - began),
    );
    times.ranked.push(performance.now() - began);
  }
  await site.close();
  const told = (values) => {
    const ratio = median(values.map((time, at) => time / times.bare[at])).toFixed(2);
    return `${(median(values) / 1000).toFixed(1)} s, ${ratio} times it`;
  };
  console.log(
    `${name}${more ? `, its style sheet ${more + 1} times` : ''}: bare loop ${(median(times.bare) / 1000).toFixed(1)} s; without encodes ${told(times.crawl)}; ranked by one encode of each ${told(times.first)}; ranked when all are searched ${told(times.ranked)}`,
  );

  async function survey(options, then, words, onWords) {
    const workspace = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
    const maps = site.hosts.flatMap((mapping) => ['--map-host', mapping]);
    const call = ['survey', site.start, '--workspace', workspace, ...maps, ...options];
    try {
      await run(program, call, words, onWords);
      if (then) await run(program, [...then, '--workspace', workspace]);
    } finally {
      rmSync(workspace, { recursive: true, force: true });
    }
  }
}

/** Runs a script to its end; tells when it has written some words to stderr, which it must. */
async function run(script, options, words, onWords) {
  const stdio = ['ignore', 'ignore', words ? 'pipe' : 'ignore'];
  const child = spawn(process.execPath, [script, ...options], { stdio });
  let written = '';
  let isTold = words === undefined;
  child.stderr?.setEncoding('utf8').on('data', (part) => {
    written += part;
    if (isTold || !words.test(written)) return;
    isTold = true;
    onWords();
  });
  const [status] = await once(child, 'exit');
  const call = `${script} ${options.join(' ')}`;
  if (status !== 0) throw new Error(`${call} ended with ${status}`);
  if (!isTold) throw new Error(`${call} did not write ${words}`);
}

async function timed(work) {
  const began = performance.now();
  await work();
  return performance.now() - began;
}
