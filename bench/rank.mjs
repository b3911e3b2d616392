// `rank` on a generated workspace: how long the program takes from its start to its end, and its peak memory, beside
// a bare program that only reads and parses what the same workspace holds. Both are run in turn.
//
//   node bench/rank.mjs [placements] [rounds]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'libsql';
import { median } from 'simple-statistics';
import { chooseViews, defaultPolicy, defaultViews, Workspace } from '../dist/src/index.js';
import { runToEnd } from './run-to-end.mjs';
import { encodeKey } from '../dist/src/images/encode-key.js';

const perVisit = 50;

if (process.argv[2] === 'bare') bare(process.argv[3]);
else await measure(Number(process.argv[2] ?? 100_000), Number(process.argv[3] ?? 3));

async function measure(placements, rounds) {
  const folder = mkdtempSync(join(tmpdir(), 'lynx-bench-'));
  try {
    generate(folder, placements);
    const program = fileURLToPath(new URL('../dist/bundle/cli/main.js', import.meta.url));
    const ranked = [];
    const read = [];
    for (let round = 0; round < rounds; round++) {
      ranked.push(await runToEnd([program, 'rank', '--workspace', folder, '--quiet']));
      read.push(await runToEnd([fileURLToPath(import.meta.url), 'bare', folder]));
    }
    const middle = (runs, name) => median(runs.map((one) => one[name]));
    console.log(`${placements} placements, ${rounds} rounds`);
    console.log(
      `rank: ${middle(ranked, 'seconds').toFixed(2)} s, ${Math.round(middle(ranked, 'megabytes'))} MB`,
    );
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

/** A survey of pages of four templates in two views, each with as many images, of which some are on many pages. */
function generate(folder, placements) {
  const workspace = Workspace.open(folder);
  const views = chooseViews(defaultViews, ['phone', 'laptop']);
  const start = 'http://brindlebay.test/';
  const pages = placements / (perVisit * views.length);
  const files = Math.max(perVisit, pages * 5);
  const plan = { given: [start], hosts: [start], scope: {} };
  const head = workspace.surveys.begin('bench', new Date().toISOString(), [start], views, plan);
  const hashOf = (file) => file.toString(16).padStart(64, '0');
  const key = encodeKey(defaultPolicy);
  for (let file = 0; file < files; file++) {
    const contentHash = hashOf(file);
    workspace.images.add({
      contentHash,
      mediaType: 'image/jpeg',
      intrinsic: { width: 2400, height: 1600 },
      bytes: 400_000 + file,
      frames: 1,
      problem: null,
    });
    workspace.encodes.add(
      {
        contentHash,
        need: { width: 716, height: 478 },
        nature: 'photograph',
        format: 'webp',
        steps: { metadata: 300, exponent: 0.7, sameFormat: 60_000, best: 40_000 },
        trials: [],
        resultHash: null,
        problem: null,
      },
      key,
    );
  }
  for (let page = 0; page < pages; page++) {
    const group = `/template-${page % 4}/*/`;
    const url = `${start}template-${page % 4}/${page}/`;
    const own = Array.from({ length: perVisit }, (_, at) => (page * 5 + at * 7) % files);
    workspace.pages.add(head.id, {
      page: {
        url,
        finalUrl: url,
        status: 200,
        depth: 1,
        visits: null,
        group,
        error: null,
        bytesByType: { html: 9_000, style: 0, script: 0, image: 2e7, font: 0, other: 0 },
      },
      document: '',
      visits: views.map(({ name, width }) => ({
        view: name,
        ...{ uses: [], resources: [] },
        placements: own.map((file, at) => ({
          kind: 'img',
          selector: `body > main > ul > li:nth-of-type(${at + 1}) > a > img`,
          url: `${start}img/kite-${file}.jpg`,
          contentHash: hashOf(file),
          slot: { width: Math.min(358, width - 32), height: 238 },
          fit: 'fill',
          drawn: null,
          naturalDensity: 1,
          aboveFold: at < 4,
          aside: false,
          largest: at === 0,
          shown: true,
          loading: at < 4 ? 'eager' : 'lazy',
          fetched: at < 4 ? 'at-once' : 'on-scroll',
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
          element: null,
        })),
        responses: [...new Set(own)].map((file) => ({
          url: `${start}img/kite-${file}.jpg`,
          contentHash: hashOf(file),
          problem: null,
          status: 200,
          redirects: [],
          declaredType: 'image/jpeg',
          protocol: 'h2',
          headers: { 'cache-control': 'max-age=3600', etag: `"${file}"` },
          transferBytes: 400_300,
          thirdParty: false,
          initiator: 'parser',
        })),
      })),
      curves: own.map((_, at) => ({
        kind: 'img',
        selector: `body > main > ul > li:nth-of-type(${at + 1}) > a > img`,
        pieces: [
          { from: 320, to: 390, a: 1, b: -32 },
          { from: 391, to: 2560, a: 0, b: 358 },
        ],
      })),
      shape: { full: [], frame: [], marks: [], trail: [], heading: '' },
    });
  }
  workspace.surveys.finish(head.id, new Date().toISOString());
  workspace.pages.seal(head.id);
  workspace.close();
}
