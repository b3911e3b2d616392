// Encodes a second of a survey's images, against a bare loop that makes the very same encodes (formats, qualities and
// sizes) from the same files with as many at a time: one that opens and reduces the file for each encode, and one that
// reduces it once for each size. All are run in turn; only their ratios are claimed.
//
//   node bench/encode.mjs [rounds] [pictures]
import { mkdtempSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { median } from 'simple-statistics';
import { draw } from '../dist/demo/pictures/draw.js';
import { bay, dunes, sailcloth, workshop } from '../dist/demo/pictures/scenes.js';
import { largestNeeds, needsOfPlacements } from '../dist/src/core/waste/placement-needs.js';
import { encode } from '../dist/src/images/encode.js';
import { readImageFacts } from '../dist/src/images/facts.js';
import { chooseViews, defaultPolicy, defaultViews, Workspace } from '../dist/src/index.js';
import { encodeSurvey } from '../dist/src/tasks/survey/encode-survey.js';
import { encodesOf } from './encodes.mjs';

const rounds = Number(process.argv[2] ?? 3);
const count = Number(process.argv[3] ?? 16);
const views = chooseViews(defaultViews, ['laptop']);
const slots = [1200, 400, 260, 700];
const bodies = await pictures();
await weighAll();
const bare = [];
const sparing = [];
const weighed = [];
let encodes = 0;
for (let round = 0; round < rounds; round++) {
  const ours = await weighAll();
  weighed.push(ours.time);
  encodes = ours.encodes.length;
  bare.push(await encodeBare(ours.encodes, reduce));
  sparing.push(await encodeBare(ours.encodes, reducer()));
}
const ratio = (times) => median(times.map((time, round) => time / weighed[round])).toFixed(2);
console.log(
  `${count} pictures of 3000 × 2000 in slots of ${slots.join(', ')} px, ${encodes} encodes`,
);
console.log(`${(encodes / count).toFixed(2)} encodes a picture`);
console.log(
  `survey / bare loop, in encodes a second: ${ratio(bare)}; where that reduces each picture once: ${ratio(sparing)}`,
);

async function pictures() {
  const made = [];
  for (let seed = 0; seed < count; seed++) {
    const paint = [bay, dunes, sailcloth, workshop][seed % 4];
    const size = { width: 3000, height: 2000 };
    made.push(
      await draw({
        kind: 'photograph',
        path: 'x.jpg',
        paint,
        light: 'noon',
        seed,
        quality: 90,
        ...size,
      }),
    );
  }
  return made;
}

/** A survey of one page that has all pictures is weighed in a workspace of its own. */
async function weighAll() {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  const workspace = Workspace.open(folder);
  try {
    const url = 'http://brindlebay.test/';
    const plan = { given: [url], hosts: [url], scope: {} };
    const head = workspace.surveys.begin('bench', new Date().toISOString(), [url], views, plan);
    const files = [];
    for (const body of bodies) {
      const file = await readImageFacts(body, 'image/jpeg');
      workspace.images.add(file);
      await workspace.bodies.keep(file.contentHash, body);
      files.push(file);
    }
    workspace.pages.add(head.id, pageWith(url, files));
    const facts = workspace.pages.read(head);
    const needs = largestNeeds(facts, needsOfPlacements(facts, defaultPolicy));
    const began = performance.now();
    const encoded = await encodeSurvey(workspace, facts, defaultPolicy, needs);
    const time = performance.now() - began;
    const bodyOf = new Map(files.map(({ contentHash }, at) => [contentHash, bodies[at]]));
    return {
      time,
      encodes: encoded.flatMap((one) =>
        encodesOf(one).map((encode) => ({ body: bodyOf.get(one.contentHash), ...encode })),
      ),
    };
  } finally {
    workspace.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function encodeBare(list, reduced) {
  const limit = pLimit(availableParallelism());
  const began = performance.now();
  await Promise.all(
    list.map(({ body, size, ...encoding }) =>
      limit(async () => encode(await reduced(body, size), encoding)),
    ),
  );
  return performance.now() - began;
}

function reduce(body, { width, height }) {
  return sharp(body).rotate().resize(width, height, { fit: 'fill', kernel: 'lanczos3' });
}

/** The same from pixels that are made once for each file and size. */
function reducer() {
  const known = new Map();
  return async (body, size) => {
    const sizes = known.get(body) ?? new Map();
    known.set(body, sizes);
    const pixels =
      sizes.get(size.width) ?? reduce(body, size).raw().toBuffer({ resolveWithObject: true });
    sizes.set(size.width, pixels);
    const { data, info } = await pixels;
    return sharp(data, { raw: info });
  };
}

function pageWith(url, files) {
  return {
    page: {
      url,
      finalUrl: url,
      status: 200,
      depth: 0,
      visits: null,
      group: null,
      error: null,
      bytesByType: { html: 0, style: 0, script: 0, image: 0, font: 0, other: 0 },
    },
    document: '',
    visits: [
      {
        view: views[0].name,
        ...{ uses: [], resources: [], load: null },
        placements: files.map(({ contentHash }, at) => ({
          kind: 'img',
          selector: `img:nth-of-type(${at + 1})`,
          url: `${url}${at}.jpg`,
          contentHash,
          slot: { width: slots[at % slots.length], height: (slots[at % slots.length] * 2) / 3 },
          fit: 'fill',
          drawn: null,
          naturalDensity: 1,
          aboveFold: false,
          aside: false,
          largest: false,
          shown: true,
          loading: 'lazy',
          fetched: 'on-scroll',
          ...{ markup: null, element: null, path: [] },
        })),
        responses: files.map(({ contentHash, bytes }, at) => ({
          url: `${url}${at}.jpg`,
          contentHash,
          problem: null,
          status: 200,
          redirects: [],
          declaredType: 'image/jpeg',
          protocol: 'h2',
          headers: {},
          transferBytes: bytes,
          thirdParty: false,
          initiator: 'parser',
        })),
      },
    ],
    curves: [],
    shape: { full: [], frame: [], marks: [], trail: [], heading: '' },
  };
}
