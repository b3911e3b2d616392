import fc from 'fast-check';
import { expect, it } from 'vitest';
import { noBytes } from '../../src/core/load/request.js';
import { noSketch } from '../../src/core/survey/document-sketch.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import type { FoundPage } from '../../src/store/pages.js';
import { Workspace } from '../../src/store/workspace.js';
import { KeepPages } from '../../src/tasks/survey/keep-pages.js';
import { plainFile } from '../support/image-file.js';
import { freshPlace } from '../support/place.js';

const start = 'http://a.test/';
const plan = { given: [start], hosts: [start], scope: {} };
const now = '2026-01-01T00:00:00.000Z';
const files = ['a', 'b', 'c', 'd'].map((letter) => ({
  ...plainFile,
  contentHash: letter.repeat(64),
}));

/** A page that shows some of the files, and links to the next. */
function pageOf(number: number, shown: readonly number[]): FoundPage {
  const url = `${start}${number}`;
  return {
    record: {
      page: {
        ...{ url, finalUrl: url, status: 200, depth: 1, visits: null, group: null, error: null },
        bytesByType: { ...noBytes(), image: number },
      },
      visits: ['phone', 'laptop'].map((view) => ({
        ...{ view, resources: [], load: null, screen: null },
        uses: [{ url: `${start}whole-${number}.jpg`, kind: 'link' as const }],
        placements: shown.map((at) => ({
          ...{ kind: 'img' as const, selector: `img:nth-of-type(${at + 1})`, url: `${start}${at}` },
          ...{ contentHash: files[at]!.contentHash, slot: { width: 20 + number, height: 15 } },
          ...{ fit: 'fill' as const, aboveFold: true, loading: 'eager' as const, drawn: null },
          ...{ naturalDensity: 1, markup: null, aside: false, shown: true, largest: false },
          ...{ fetched: 'at-once' as const, element: null, path: [] },
        })),
        responses: shown.map((at) => ({
          ...{ url: `${start}${at}`, contentHash: files[at]!.contentHash, problem: null },
          ...{ status: 200, redirects: [], declaredType: 'image/png', protocol: 'h2' },
          ...{ headers: {}, transferBytes: 1000, thirdParty: false, initiator: 'parser' as const },
        })),
      })),
      curves: shown.map((at) => ({
        ...{ kind: 'img' as const, selector: `img:nth-of-type(${at + 1})` },
        pieces: [{ from: 320, to: 2560, a: 0, b: 20 + number }],
      })),
      shape: { ...noSketch, heading: `Page ${number}` },
      document: '',
    },
    found: {
      due: [{ url: `${start}${number + 1}`, depth: 2, visits: null }],
      skipped: [{ url: `${start}${number}.pdf`, reason: 'a .pdf file' }],
    },
  };
}

/** A workspace with the files, and a survey that is begun. */
function begun() {
  const workspace = Workspace.open(freshPlace());
  for (const file of files) workspace.images.add(file);
  return { workspace, head: workspace.surveys.begin('kites', now, [start], defaultViews, plan) };
}

function told({ workspace, head }: ReturnType<typeof begun>) {
  const { pages } = workspace;
  const { placements, responses, ...facts } = pages.read(head);
  const curves = [...placements].map((_, row) => placements.curveAt(row));
  const kept = { ...facts, placements: [...placements], responses: [...responses], curves };
  return { ...kept, leftover: pages.leftover(head.id), sketches: pages.sketches(head.id) };
}

it('keeps pages that come at the same moment as it keeps one after another', async () => {
  const some = fc.array(fc.uniqueArray(fc.nat(files.length - 1)), { minLength: 1, maxLength: 70 });
  await fc.assert(
    fc.asyncProperty(some, async (shown) => {
      const [single, together] = [begun(), begun()];
      const pages = shown.map((files, number) => pageOf(number, files));
      for (const { record, found } of pages)
        single.workspace.pages.add(single.head.id, record, found);
      const keeping = new KeepPages(together.workspace.pages, together.head.id, () => {});
      await Promise.all(pages.map((page) => keeping.keep(page)));
      expect(told(together)).toEqual(told(single));
      single.workspace.close();
      together.workspace.close();
    }),
    { seed: 20_261_128, numRuns: 8 },
  );
});

it('tells each of the pages that come together when one of them cannot be kept, and keeps none', async () => {
  const { workspace, head } = begun();
  let mayKeep = true;
  const keeping = new KeepPages(workspace.pages, head.id, () => {
    if (!mayKeep) throw new Error('the lead is another’s');
  });
  const twice = [pageOf(1, [0]), pageOf(2, [1]), pageOf(2, [2])];
  const failed = await Promise.allSettled(twice.map((page) => keeping.keep(page)));
  expect(failed.map(({ status }) => status)).toEqual(['rejected', 'rejected', 'rejected']);
  expect(workspace.pages.list(head.id)).toEqual([]);
  expect(workspace.pages.leftover(head.id).found).toEqual([]);
  await keeping.keep(pageOf(1, [0]));
  mayKeep = false;
  await expect(keeping.keep(pageOf(2, [1]))).rejects.toThrow('another’s');
  expect(workspace.pages.list(head.id).map(({ url }) => url)).toEqual([`${start}1`]);
  workspace.close();
});
