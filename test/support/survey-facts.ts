import fc from 'fast-check';
import type { ImageFile, ImageResponse } from '../../src/core/survey/image-file.js';
import { attributeOf } from '../../src/core/slots/element-markup.js';
import type { ElementMarkup } from '../../src/core/slots/element-markup.js';
import type { Markup, Placement } from '../../src/core/slots/placement.js';
import type { SurveyFacts, SurveyedPage } from '../../src/core/survey/survey.js';
import type { Encoded } from '../../src/core/survey/encoded.js';
import { singlePictures } from '../../src/core/survey/pictures.js';
import { noBytes } from '../../src/core/load/request.js';
import { tablesOf } from './tables.js';
import { defaultViews } from '../../src/core/visitors/view.js';

/** One image file of a made-up survey. */
export interface FileSketch {
  readonly bytes: number;
  readonly best: number;
  readonly addresses: number;
  /** On which pages it is, by number. */
  readonly pages: readonly number[];
  /** Whether it is shown, by view. */
  readonly shown: readonly boolean[];
  readonly readable: boolean;
  readonly thirdParty: boolean;
  readonly slotWidth: number;
}

export const plainSketch: FileSketch = {
  bytes: 900,
  best: 100,
  addresses: 1,
  pages: [0, 1],
  shown: [true, true],
  readable: true,
  thirdParty: false,
  slotWidth: 100,
};

/** Any file that a survey may come across, on up to six pages. */
export const anySketch = fc.record({
  bytes: fc.integer({ min: 0, max: 5_000_000 }),
  best: fc.integer({ min: 0, max: 5_000_000 }),
  addresses: fc.integer({ min: 1, max: 3 }),
  pages: fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 6 }),
  shown: fc.tuple(fc.boolean(), fc.boolean()),
  readable: fc.boolean(),
  thirdParty: fc.boolean(),
  slotWidth: fc.integer({ min: 1, max: 2_000 }),
});

/** Two of the views, as a survey that was asked for them has them. */
export const sketchViews = [
  { ...defaultViews[0]!, share: 0.6 },
  { ...defaultViews[2]!, share: 0.4 },
];

export function pageOf(page: number): string {
  return `http://a.test/${page}`;
}

/** The slot curve of the first file on the first page. */
const slotCurve = [{ from: 320, to: 2560, a: 0, b: 100 }];

function slotSelector(index: number): string {
  return `ul > li:nth-of-type(${index + 1}) > img`;
}

const intrinsic = { width: 1000, height: 500 };

/** A survey with the given files, in two views; page `n` is visited `visits[n]` times a month. */
export function surveyOf(
  sketches: readonly FileSketch[],
  visits: readonly (number | null)[] = [],
  elementOf: () => ElementMarkup | null = () => null,
): SurveyFacts {
  const hash = (index: number) => `hash-${index}`;
  const files: ImageFile[] = sketches.map(({ bytes, readable }, index) => ({
    contentHash: hash(index),
    mediaType: 'image/jpeg',
    intrinsic: readable ? intrinsic : null,
    bytes,
    frames: 1,
    problem: readable ? null : 'it is HTML, not an image',
  }));
  const spots = sketches.flatMap((sketch, index) =>
    sketch.pages.flatMap((page) =>
      sketchViews.map(({ name }, view) => ({ sketch, index, page, view: name, place: view })),
    ),
  );
  const numbers = new Set(sketches.flatMap(({ pages }) => pages));
  const pages = [...numbers].map((page): SurveyedPage => ({
    url: pageOf(page),
    finalUrl: pageOf(page),
    status: 200,
    depth: 0,
    visits: visits[page] ?? null,
    group: page % 2 === 0 ? 'even' : null,
    error: null,
    bytesByType: noBytes(),
  }));
  const head = {
    id: 1,
    label: 'made-up',
    startedAt: '2026-01-01T00:00:00.000Z',
    finishedAt: null,
    starts: ['http://a.test/'],
    views: sketchViews,
  };
  const responses = spots.flatMap(({ sketch, index, page, view }) =>
    Array.from({ length: sketch.addresses }, (_, copy): ImageResponse => ({
      page: pageOf(page),
      view,
      url: `http://${sketch.thirdParty ? 'b' : 'a'}.test/${index}-${copy}.jpg`,
      contentHash: hash(index),
      problem: null,
      status: 200,
      redirects: [],
      declaredType: 'image/jpeg',
      protocol: 'http/1.1',
      headers: {},
      transferBytes: sketch.bytes + 200,
      thirdParty: sketch.thirdParty,
      initiator: 'parser',
    })),
  );
  const placements = spots.map(({ sketch, index, page, view, place }): Placement => ({
    page: pageOf(page),
    view,
    kind: 'img',
    selector: slotSelector(index),
    url: `http://${sketch.thirdParty ? 'b' : 'a'}.test/${index}-0.jpg`,
    contentHash: hash(index),
    slot: { width: sketch.slotWidth, height: sketch.slotWidth / 2 },
    fit: 'fill',
    aboveFold: true,
    aside: false,
    largest: false,
    shown: sketch.shown[place]!,
    loading: 'eager',
    drawn: null,
    naturalDensity: 1,
    fetched: 'at-once',
    markup: elementOf() && declaredMarkup(elementOf()!),
  }));
  const tables = tablesOf(
    files,
    placements,
    responses,
    ({ page, selector }) => (page === pageOf(0) && selector === slotSelector(0) ? slotCurve : null),
    elementOf,
  );
  return {
    head,
    pages,
    files,
    ...tables,
    encoded: sketches.flatMap((sketch, index) => encodedOf(sketch, hash(index))),
    pictures: singlePictures({ files }),
  };
}

/** What a page tells of an element. */
function declaredMarkup({ attributes }: ElementMarkup): Markup {
  const side = (name: string) => Number(attributeOf(attributes, name)) || null;
  return {
    alt: null,
    ...{ srcset: attributeOf(attributes, 'srcset'), sizes: attributeOf(attributes, 'sizes') },
    ...{ fetchPriority: 'auto', decoding: 'auto', dimensions: true, framed: false },
    declared: { width: side('width'), height: side('height') },
  };
}

function encodedOf({ best, shown, readable, slotWidth }: FileSketch, hash: string): Encoded[] {
  if (!readable || !shown.some(Boolean)) return [];
  const width = Math.min(intrinsic.width, slotWidth * 2);
  return [
    {
      contentHash: hash,
      need: { width, height: Math.ceil(width / 2) },
      nature: 'photograph',
      format: 'webp',
      steps: { metadata: 10, exponent: 0.7, sameFormat: best + 10, best },
      attempts: [],
      resultHash: 'x',
      problem: null,
    },
  ];
}
