// How far what `clock` reports is from what is known: a page whose delays the server makes, loaded again and again.
// Phases are held to the delays; starts, ends and markers to the server's own clock, which begins when the page is
// asked for; paints to the film of the load, whose pixels are looked at here. The median of what they are off by must
// stay within 15 ms or 5 % of the value, whichever is larger.
//
//   node bench/trust.mjs [loads]
import { once } from 'node:events';
import { createServer } from 'node:http';
import { median, min } from 'simple-statistics';
import sharp from 'sharp';
import { coldLoad, defaultColdLoadLimits } from '../dist/src/browser/load/cold-load.js';
import { launchBrowser } from '../dist/src/browser/chromium/launch.js';
import { Reach } from '../dist/src/reach/reach.js';

const loads = Number(process.argv[2] ?? 9);
/** Milliseconds: of connecting, of the server, and of the page's own script after its load event. */
const delays = { connect: 80, page: 200, style: 400, drip: 500, moved: 100, tail: 250 };
const script = { tail: 300, busyAfter: 900, busy: 200 };
/** CSS pixels by which all of the page moves down at last. */
const moved = 100;

const noise = { type: 'gaussian', mean: 190, sigma: 40 };
const darkFoot = { create: { width: 640, height: 80, channels: 3, background: 'black' } };
const picture = await sharp({ create: { width: 640, height: 480, channels: 3, noise } })
  .composite([{ input: darkFoot, gravity: 'south' }])
  .jpeg()
  .toBuffer();
const answers = {
  '/': {
    wait: delays.page,
    type: 'text/html',
    body: `<!doctype html><link rel="icon" href="data:,"><link rel="stylesheet" href="/slow.css">
      <style>body { margin: 0 } h1 { margin: 0; font: 900 70px/80px sans-serif } img { vertical-align: top }</style>
      <h1>Kites</h1><img src="/drip.jpg" width="640" height="480"><img src="/moved.jpg" width="60" height="60">
      <script>
        addEventListener('DOMContentLoaded', () => navigator.sendBeacon('/ready'));
        addEventListener('load', () => {
          setTimeout(() => { new Image().src = '/tail.jpg'; }, ${script.tail});
          setTimeout(() => {
            for (const end = performance.now() + ${script.busy}; performance.now() < end; );
            document.body.style.paddingTop = '${moved}px';
          }, ${script.busyAfter});
        });
      </script>`,
  },
  '/slow.css': { wait: delays.style, type: 'text/css', body: 'h1 { color: navy }' },
  '/drip.jpg': { type: 'image/jpeg', body: picture, pauseInBody: delays.drip },
  '/moved.jpg': { wait: delays.moved, location: '/small.jpg' },
  '/small.jpg': { type: 'image/jpeg', body: picture },
  '/tail.jpg': { wait: delays.tail, type: 'image/jpeg', body: picture },
};

const view = { name: 'laptop', width: 1366, height: 768, density: 1, touch: false };
/** Where the page's heading and the dark foot of its large picture are, in CSS pixels. */
const heading = { left: 0, top: 0, width: 200, height: 80 };
const footOfPicture = { left: 20, top: 480, width: 600, height: 70 };

/** When a region of the page was first seen to hold something dark, in milliseconds since the navigation began. */
const inked =
  (region) =>
  async ({ shots }) => {
    for (const { at, picture } of shots) {
      const { width } = await sharp(picture).metadata();
      const scaled = Object.entries(region).map(([side, length]) => [
        side,
        Math.round((length * width) / view.width),
      ]);
      const pixels = await sharp(picture)
        .extract(Object.fromEntries(scaled))
        .greyscale()
        .raw()
        .toBuffer();
      if (min([...pixels]) < 64) return at;
    }
    throw new Error('the film never shows it');
  };

/** When each address was asked for, and when its last byte was sent, in milliseconds of the server's clock. */
let seen = {};

const server = createServer((request, response) => {
  const entry = (seen[request.url] ??= { asked: performance.now() });
  response.once('finish', () => (entry.ended = performance.now()));
  const answer = answers[request.url] ?? { body: '' };
  const body = Buffer.from(answer.body ?? '');
  setTimeout(() => {
    entry.answered = performance.now();
    response.writeHead(answer.location ? 302 : 200, {
      'content-type': answer.type ?? 'text/plain',
      'content-length': body.length,
      ...(answer.location && { location: answer.location }),
    });
    if (!answer.pauseInBody) return void response.end(body);
    response.write(body.subarray(0, body.length >> 1));
    setTimeout(() => response.end(body.subarray(body.length >> 1)), answer.pauseInBody);
  }, answer.wait ?? 0);
}).listen(0, '127.0.0.1');
await once(server, 'listening');

const marker = (name) => (run) => run.markers[name];
const phase = (path, name) => (run) => find(run, path).phases[name];
/** The navigation begins a connection before the server is asked. */
const clockOf =
  (path, moment) =>
  ({ seen }) =>
    seen[path][moment] - seen['/'].asked + delays.connect;
const loadEvent = (one) => clockOf('/tail.jpg', 'asked')(one) - script.tail;
/** Share of the screen that what moved covers before and after, times how far it moved as a share of the longer side. */
const shift =
  ((view.width * (80 + moved) + 640 * 480 + 60 * 60) / (view.width * view.height)) *
  (moved / Math.max(view.width, view.height));
/** What is known of a load, where it is told, and of which loads it is taken. */
const known = {
  'time to first byte': [clockOf('/', 'answered'), marker('ttfb')],
  'first paint': [inked(heading), marker('firstPaint'), 'filmed'],
  'first contentful paint': [inked(heading), marker('firstContentfulPaint'), 'filmed'],
  'largest contentful paint': [inked(footOfPicture), marker('largestContentfulPaint'), 'filmed'],
  DOMContentLoaded: [clockOf('/ready', 'asked'), marker('domContentLoaded')],
  'load event': [loadEvent, marker('load')],
  interactive: [(one) => loadEvent(one) + script.busyAfter + script.busy, marker('interactive')],
  // What is longer than 50 ms counts from there on.
  'blocking time': [() => script.busy - 50, marker('blockingTime')],
  'layout shift, thousandths': [() => shift * 1000, (run) => run.markers.layoutShift * 1000],
  'last byte': [clockOf('/tail.jpg', 'ended'), marker('lastByte')],
  'network quiet': [clockOf('/tail.jpg', 'ended'), marker('quiet')],
  'page: connect': [() => delays.connect, phase('/', 'connect')],
  'page: wait': [() => delays.page, phase('/', 'wait')],
  'style sheet: wait': [() => delays.style, phase('/slow.css', 'wait')],
  'style sheet: end': [clockOf('/slow.css', 'ended'), (run) => find(run, '/slow.css').end],
  'slow drip: receive': [() => delays.drip, phase('/drip.jpg', 'receive')],
  'slow drip: end': [clockOf('/drip.jpg', 'ended'), (run) => find(run, '/drip.jpg').end],
  'redirect: wait': [() => delays.moved, phase('/moved.jpg', 'wait')],
  'behind the redirect: start': [
    clockOf('/small.jpg', 'asked'),
    (run) => find(run, '/small.jpg').start,
  ],
  'tail: start': [clockOf('/tail.jpg', 'asked'), (run) => find(run, '/tail.jpg').start],
  'tail: wait': [() => delays.tail, phase('/tail.jpg', 'wait')],
};

const origin = `http://127.0.0.1:${server.address().port}`;
const find = ({ requests }, path) => requests.find(({ url }) => url === origin + path);

const browser = await launchBrowser(Reach.open(), { latency: delays.connect });

/** Loads the page once; what was reported of it, and what is known of it. */
async function load(filmed) {
  seen = {};
  let shots = [];
  const [run] = await coldLoad(browser, {
    url: `${origin}/`,
    conditions: {
      network: { name: 'none', latency: 0, down: 0, up: 0 },
      cpuFactor: 1,
      view,
      browser: '',
      cache: 'cold',
    },
    isThirdParty: () => false,
    onFilm: filmed ? (film) => (shots = film) : undefined,
    limits: filmed ? { ...defaultColdLoadLimits, rest: 0 } : defaultColdLoadLimits,
  });
  if (run.failure !== null) throw new Error(run.failure);
  return { run, seen, shots };
}

/** A film is work for the browser: what is not looked up in it is taken from loads without. */
const runs = { filmed: [], bare: [] };
for (let round = -1; round < loads; round++)
  for (const [kind, list] of Object.entries(runs)) {
    const one = await load(kind === 'filmed');
    if (round >= 0) list.push(one);
  }
await browser.close();
server.closeAllConnections();
server.close();

let within = 0;
for (const [name, [valueOf, read, kind = 'bare']] of Object.entries(known)) {
  const readings = await Promise.all(
    runs[kind].map(async (one) => ({ value: await valueOf(one), told: read(one.run) })),
  );
  const value = median(readings.map((reading) => reading.value));
  const off = median(readings.map((reading) => reading.told - reading.value));
  // The shift is a share and no time.
  const allowed = Math.max(name.startsWith('layout') ? 0 : 15, value * 0.05);
  const good = Math.abs(off) <= allowed;
  within += Number(good);
  console.log(
    `${name.padEnd(28)} known ${value.toFixed(0).padStart(5)} ms, off by ${off.toFixed(1).padStart(6)} of ${allowed.toFixed(0)}${good ? '' : '   BEYOND'}`,
  );
}
console.log(
  `${within} of ${Object.keys(known).length} within 15 ms or 5 %, medians of ${loads} loads each`,
);
