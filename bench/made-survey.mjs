import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { chooseViews, defaultPolicy, defaultViews, Workspace } from '../dist/src/index.js';
import { encodeKey } from '../dist/src/images/encode-key.js';

/** The views of the survey. */
export const views = chooseViews(defaultViews, ['phone', 'laptop']);

export const start = 'http://brindlebay.test/';
const nothing = { due: [], skipped: [] };
/** Content hashes of files that have bodies. */
const hashes = new Map();
const hashOf = (file) => hashes.get(file) ?? file.toString(16).padStart(64, '0');
const addressOf = (file) => `${start}img/kite-${file}.jpg`;
/** Ten slots of each template; what stands in one of them again is of the same family. */
const places = [
  'ul > li',
  'ol > li',
  'div',
  'section',
  'article',
  'aside',
  'header',
  'nav',
  'p',
  'dl > dd',
];
const selectors = Array.from(
  { length: 100 },
  (_, at) => `body > main > ${places[at % places.length]}:nth-of-type(${at + 1}) > a > img`,
);

/**
 * Writes a survey of pages of four templates, or of a slot family for each of `families` pages, in two views.
 *
 * @param order.perVisit images of a page, of which some are on many pages
 * @param order.files image files in all
 * @param order.step image files that each page has beyond the one before
 * @param order.withPictures whether files have bodies, and pages a picture of their first screen
 * @param order.families how many templates there are
 */
export async function madeSurvey(folder, order) {
  const { pages, perVisit, files, step = 5, withPictures = false, families = 4 } = order;
  const workspace = Workspace.open(folder);
  const plan = { given: [start], hosts: [start], scope: {} };
  const head = workspace.surveys.begin('bench', new Date().toISOString(), [start], views, plan);
  const body = withPictures ? await picture(1200, 800).jpeg({ quality: 60 }).toBuffer() : null;
  const screen = withPictures ? await picture(480, 270).webp({ quality: 45 }).toBuffer() : null;
  for (let file = 0; file < files; file++) {
    if (body) {
      // What stands behind the end of a JPEG file is read by nobody, and makes another file of it.
      const own = Buffer.concat([body, Buffer.from(String(file))]);
      hashes.set(file, createHash('sha256').update(own).digest('hex'));
      await workspace.bodies.keep(hashOf(file), own);
    }
    addFile(workspace, file);
  }
  const waiting = [];
  for (let page = 0; page < pages; page++) {
    const template = page % families;
    const shown = Array.from({ length: perVisit }, (_, at) => (page * step + at * 7) % files);
    const url = `${start}template-${template}/${page}/`;
    waiting.push({ record: pageOf(url, template, shown, screen), found: nothing });
    if (waiting.length === 32 || page === pages - 1)
      workspace.pages.addAll(head.id, waiting.splice(0));
  }
  workspace.surveys.finish(head.id, new Date().toISOString());
  workspace.close();
}

function picture(width, height) {
  const noise = { type: 'gaussian', mean: 128, sigma: 30 };
  return sharp({ create: { width, height, channels: 3, background: '#888', noise } }).blur(1.5);
}

export function addFile(workspace, file) {
  const contentHash = hashOf(file);
  workspace.images.add({
    ...{ contentHash, mediaType: 'image/jpeg', intrinsic: { width: 2400, height: 1600 } },
    ...{ bytes: 400_000 + file, frames: 1, problem: null },
  });
  workspace.encodes.add(
    {
      ...{ contentHash, need: { width: 716, height: 477 }, nature: 'photograph', format: 'webp' },
      steps: { metadata: 300, exponent: 0.7, sameFormat: 60_000, best: 40_000 },
      ...{ attempts: [], resultHash: null, problem: null },
    },
    encodeKey(defaultPolicy),
  );
}

/** A page of a template with the files of its own, in all views. @param screen picture of its first screen, or `null` */
export function pageOf(url, template, own, screen) {
  const files = own.map((file) => [file, addressOf(file), hashOf(file)]);
  return {
    page: {
      ...{ url, finalUrl: url, status: 200, depth: 1, visits: null, error: null },
      group: `/template-${template}/*/`,
      bytesByType: { html: 9_000, style: 0, script: 0, image: 2e7, font: 0, other: 0 },
    },
    document: '',
    visits: views.map(({ name, width, height }) => ({
      view: name,
      ...{ uses: [], resources: [], load: null },
      placements: files.map(([file, address, hash], at) =>
        placementOf(file, at, width, address, hash),
      ),
      responses: files
        .filter(([file], at) => own.indexOf(file) === at)
        .map(([file, address, hash]) => responseOf(file, address, hash)),
      screen: {
        ...{ width, height: height * 4, picture: screen },
        boxes: own.flatMap((_, at) => [16, 100 + at * 260, Math.min(358, width - 32), 238]),
      },
    })),
    curves: own.map((_, at) => ({
      ...{ kind: 'img', selector: selectors[at] },
      pieces: [
        { from: 320, to: 390, a: 1, b: -32 },
        { from: 391, to: 2560, a: 0, b: 358 },
      ],
    })),
    shape: { full: [], frame: [], skeleton: [], marks: [], trail: [], heading: '' },
  };
}

/** Where every image stands. */
const path = [
  ['html', '', ''],
  ['body', '', 'home'],
  ['main', '', ''],
  ['figure', '', 'kite'],
  ['a', '', ''],
  ['img', '', ''],
];

// A million pages have forty million of these: they are written out, since spreading objects takes longer than storing them.
function placementOf(file, at, width, url, contentHash) {
  const isFirst = at < 4;
  return {
    kind: 'img',
    selector: selectors[at],
    url,
    contentHash,
    slot: { width: Math.min(358, width - 32), height: 238 },
    fit: 'fill',
    drawn: null,
    naturalDensity: 1,
    aside: false,
    shown: true,
    element: null,
    path,
    aboveFold: isFirst,
    largest: at === 0,
    loading: isFirst ? 'eager' : 'lazy',
    fetched: isFirst ? 'at-once' : 'on-scroll',
    markup: {
      alt: `Kite number ${file}`,
      srcset: null,
      sizes: null,
      fetchPriority: 'auto',
      decoding: 'auto',
      dimensions: true,
      declared: { width: 800, height: 534 },
      framed: false,
    },
  };
}

function responseOf(file, url, contentHash) {
  return {
    url,
    contentHash,
    problem: null,
    status: 200,
    redirects: [],
    declaredType: 'image/jpeg',
    protocol: 'h2',
    transferBytes: 400_300,
    headers: { 'cache-control': 'max-age=3600', etag: `"${file}"` },
    thirdParty: false,
    initiator: 'parser',
  };
}
