// Makes docs/screenshots/: each command run on the demo site, in a terminal window of 1280 × 800.
// Needs Xvfb, xterm and ImageMagick; run by `npm run screenshots` when an output has changed.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, mkdirSync, rmSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const out = join(root, 'docs', 'screenshots');
const display = ':97';
const only = process.argv.slice(2);

for (const program of ['Xvfb', 'xterm', 'import'])
  if (spawnSync('sh', ['-c', `command -v ${program}`]).status !== 0) {
    console.error(`${program} is missing: sudo apt-get install xvfb xterm imagemagick`);
    process.exit(3);
  }

const folder = mkdtempSync(join(tmpdir(), 'lynx-shots-'));
const bin = join(folder, 'bin');
mkdirSync(bin);
mkdirSync(out, { recursive: true });
const program = `exec ${process.execPath} ${join(root, 'dist/bundle/cli/main.js')} "$@"`;
spawnSync(
  'sh',
  ['-c', `printf '#!/bin/sh\\n%s\\n' '${program}' > zealous-lynx && chmod +x zealous-lynx`],
  { cwd: bin },
);

/** Each picture: its name, what is typed, and when it is taken where that is not at the end. */
const shots = [
  [
    'survey',
    `zealous-lynx survey http://brindlebay.test/ --map-host '*.test=127.0.0.1:8191' --view phone --view laptop`,
  ],
  ['rank', 'zealous-lynx rank'],
  ['findings', 'zealous-lynx rank --by finding && zealous-lynx explain uncompressed-text --top 6'],
  ['explain', 'zealous-lynx explain /img/hero/banner-1.jpg --survey brindle-bay | head -45'],
  ['refit', `zealous-lynx refit --out refit --sheet / --top 12 --map-host '*.test=127.0.0.1:8191'`],
  [
    'clock',
    'zealous-lynx clock http://brindlebay.test/ --label before --network fast-mobile --map-host "*.test=127.0.0.1:8191" --top 8',
  ],
  ['compare', 'zealous-lynx compare before after --tried tried'],
  [
    'trial',
    'zealous-lynx trial http://brindlebay.test/ --refit brindle-bay-refit --each --network fast-mobile --map-host "*.test=127.0.0.1:8191" --quiet | head -44',
    420_000,
  ],
];

/** Pictures that commands draw themselves: their names, and the commands as far as the file. */
const drawn = [
  ['waterfall', ['clock', '--har', '.zealous-lynx/har/session-1.har', '--top', '30', '--png']],
  [
    'trial-film',
    [
      ...['trial', 'http://brindlebay.test/', '--refit', 'brindle-bay-refit', '--runs', '1'],
      ...['--network', 'fast-mobile', '--map-host', '*.test=127.0.0.1:8191', '--film'],
    ],
  ],
];

/** The four weeks of the demo, in a folder of their own: what does not hold in the third, and the numbers over time. */
const weeks = join(folder, 'weeks');
mkdirSync(weeks);

/** Pages in a browser window: the demo site as a laptop shows it, and what a refit hands over. */
const pages = [
  ['review', (page) => page.goto(`file://${join(folder, 'refit/review.html')}`)],
  ['report', report('overview')],
  ['report-fixes', report('fixes/images-0')],
  ['report-pages', report('pages')],
  ['report-loading', report('loading/2')],
  ['report-hand-over', report('hand-over')],
];

/** A view of the demo's report, as its address names it. */
function report(view) {
  return async (page) => {
    await page.goto(`file://${join(folder, 'brindle-bay-report.html')}#${view}`);
    await page.waitForSelector('main h1');
  };
}
const environment = {
  ...process.env,
  DISPLAY: display,
  PATH: `${bin}:${process.env.PATH}`,
  TERM: 'xterm-256color',
};
delete environment.NO_COLOR;
const screen = spawn('Xvfb', [display, '-screen', '0', '1280x800x24'], { stdio: 'ignore' });
const site = spawn(join(bin, 'zealous-lynx'), ['demo', '--serve', '--port', '8191'], {
  cwd: folder,
  stdio: 'ignore',
  env: environment,
});
try {
  await pause(1500);
  console.log('running the demo first: it makes the sessions that are compared');
  await shoot('demo', 'zealous-lynx demo --quiet | tail -32', 600_000);
  for (const [name, command, after] of shots)
    if (only.length === 0 || only.includes(name)) await shoot(name, command, after);
  if (!existsSync(join(folder, 'refit')))
    spawnSync(
      'zealous-lynx',
      ['refit', '--out', 'refit', '--sheet', '/', '--quiet', '--no-prove'],
      {
        cwd: folder,
        env: environment,
        stdio: 'ignore',
      },
    );
  for (const [name, shootIt] of pages)
    if (only.length === 0 || only.includes(name)) await inBrowser(name, shootIt);
  if (only.length === 0 || only.includes('gate') || only.includes('history')) {
    const call = ['demo', '--weeks', '--quiet', '--picture', join(out, 'history.png')];
    spawnSync('zealous-lynx', call, { cwd: weeks, env: environment, stdio: 'ignore' });
    console.log('history.png');
    await shoot(
      'gate',
      'zealous-lynx gate --suggest --survey week-2 --session week-2 > zealous-lynx.config.yaml; zealous-lynx gate --survey week-3 --session week-3 | head -43',
      60_000,
      weeks,
    );
  }
  for (const [name, values] of drawn)
    if (only.length === 0 || only.includes(name)) drawPicture(name, values);
} finally {
  site.kill('SIGINT');
  screen.kill();
  rmSync(folder, { recursive: true, force: true });
}

/** @param most milliseconds after which it is taken, whether the command has come to its end or not */
async function shoot(name, command, most = 240_000, cwd = folder) {
  const done = join(folder, `${name}.done`);
  const typed = `printf '\\033[1;36m$\\033[0m %s\\n' '${command.replaceAll("'", `'"'"'`)}'; ${command}; touch ${done}; sleep 3`;
  const terminal = spawn(
    'xterm',
    [
      '-geometry',
      '158x47+0+0',
      '-fa',
      'DejaVu Sans Mono',
      '-fs',
      '10',
      '-bg',
      '#10202b',
      '-fg',
      '#e8eef0',
      '-b',
      '6',
      '+sb',
      '-e',
      'sh',
      '-c',
      typed,
    ],
    { cwd, env: environment, stdio: 'ignore' },
  );
  for (let waited = 0; !existsSync(done) && waited < most; waited += 200) await pause(200);
  await pause(700);
  spawnSync('import', ['-window', 'root', join(out, `${name}.png`)], { env: environment });
  terminal.kill();
  console.log(`${name}.png`);
}

async function inBrowser(name, shootIt) {
  const { launchBrowser } = await import('../dist/src/browser/chromium/launch.js');
  const { Reach } = await import('../dist/src/reach/reach.js');
  const browser = await launchBrowser(Reach.open({ '*.test': '127.0.0.1:8191' }));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await shootIt(page);
  await pause(500);
  await page.screenshot({ path: join(out, `${name}.png`) });
  await browser.close();
  console.log(`${name}.png`);
}

/** What the program draws into a file. */
function drawPicture(name, values) {
  const file = join(out, `${name}.png`);
  spawnSync('zealous-lynx', [...values, file], { cwd: folder, env: environment });
  // Of a whole page the top is enough to see what the picture is.
  spawnSync('convert', [file, '-crop', 'x1000+0+0', '+repage', '-colors', '192', file]);
  console.log(`${name}.png`);
}
