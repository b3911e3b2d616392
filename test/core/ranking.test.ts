import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ImageFile } from '../../src/core/image-file.js';
import { defaultPolicy } from '../../src/core/policy.js';
import { largestNeeds, rankImages } from '../../src/core/ranking.js';
import type { Encoded, SurveyFacts } from '../../src/core/survey.js';
import { causes } from '../../src/core/waste.js';
import { defaultViews } from '../../src/core/view.js';

interface Sketch {
  readonly bytes: number;
  readonly best: number;
  readonly addresses: number;
  readonly pages: number;
  readonly shown: boolean;
  readonly readable: boolean;
}

/** A survey with the given files; every one is placed in both views of each of its pages. */
function surveyOf(sketches: readonly Sketch[]): SurveyFacts {
  const files: ImageFile[] = sketches.map(({ bytes, readable }, index) => ({
    contentHash: `hash-${index}`,
    mediaType: 'image/jpeg',
    intrinsic: readable ? { width: 1000, height: 500 } : null,
    bytes,
    frames: 1,
    problem: readable ? null : 'it is HTML, not an image',
  }));
  const spots = sketches.flatMap((sketch, index) =>
    Array.from({ length: sketch.pages }, (_, page) =>
      defaultViews.map(({ name }) => ({
        sketch,
        index,
        page: `http://a.test/${page}`,
        view: name,
      })),
    ).flat(),
  );
  return {
    head: {
      id: 1,
      label: 'random',
      startedAt: '2026-01-01T00:00:00.000Z',
      finishedAt: null,
      starts: ['http://a.test/'],
      views: defaultViews,
    },
    pages: [],
    files,
    responses: spots.flatMap(({ sketch, index, page, view }) =>
      Array.from({ length: sketch.addresses }, (_, copy) => ({
        page,
        view,
        url: `http://a.test/${index}-${copy}.jpg`,
        contentHash: `hash-${index}`,
        problem: null,
        status: 200,
        redirects: [],
        declaredType: 'image/jpeg',
        protocol: 'http/1.1',
        headers: {},
        transferBytes: sketch.bytes + 200,
        thirdParty: false,
      })),
    ),
    placements: spots.map(({ sketch, index, page, view }) => ({
      page,
      view,
      kind: 'img',
      selector: 'img',
      url: `http://a.test/${index}-0.jpg`,
      contentHash: `hash-${index}`,
      slot: { width: 100, height: 50 },
      fit: 'fill',
      aboveFold: true,
      shown: sketch.shown,
      loading: 'eager',
      drawn: null,
      naturalDensity: 1,
      fetched: 'at-once',
      markup: null,
    })),
    curves: [
      {
        page: 'http://a.test/0',
        kind: 'img',
        selector: 'img',
        pieces: [{ from: 320, to: 2560, a: 0, b: 100 }],
      },
    ],
    encoded: sketches.flatMap(({ best, shown, readable }, index): Encoded[] =>
      shown && readable
        ? [
            {
              contentHash: `hash-${index}`,
              need: { width: 200, height: 100 },
              format: 'webp',
              steps: { pixelRatio: 0.5, sameFormat: best + 10, best },
              resultHash: 'x',
              problem: null,
            },
          ]
        : [],
    ),
  };
}

const plain: Sketch = {
  bytes: 900,
  best: 100,
  addresses: 1,
  pages: 2,
  shown: true,
  readable: true,
};

describe('rankImages', () => {
  it('has totals that are the sums of its rows, for every survey', () => {
    const sketch = fc.record({
      bytes: fc.integer({ min: 0, max: 5_000_000 }),
      best: fc.integer({ min: 0, max: 5_000_000 }),
      addresses: fc.integer({ min: 1, max: 3 }),
      pages: fc.integer({ min: 1, max: 3 }),
      shown: fc.boolean(),
      readable: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(sketch, { maxLength: 12 }), (sketches) => {
        const { totals, images } = rankImages(surveyOf(sketches), defaultPolicy);
        const sum = (valueOf: (image: (typeof images)[number]) => number) =>
          images.reduce((all, image) => all + valueOf(image), 0);
        expect(totals.wasteBytes).toBe(sum(({ wasteBytes }) => wasteBytes ?? 0));
        expect(totals.neededBytes).toBe(sum(({ neededBytes }) => neededBytes ?? 0));
        expect(totals.sentBytes).toBe(totals.neededBytes + totals.wasteBytes);
        for (const cause of causes)
          expect(totals.wasteByCause[cause]).toBe(sum(({ causes: split }) => split?.[cause] ?? 0));
        const sent = sketches.reduce((all, { bytes, addresses }) => all + bytes * addresses, 0);
        expect(totals.sentBytes + totals.unknownBytes).toBe(sent);
      }),
    );
  });

  it('puts the most waste first and counts a file once, however many pages show it', () => {
    const small = { ...plain, bytes: 400 };
    const { images } = rankImages(surveyOf([small, plain]), defaultPolicy);
    expect(images.map(({ wasteBytes }) => wasteBytes)).toEqual([800, 300]);
    expect(images[0]).toMatchObject({ pages: 2, bytes: 900, neededBytes: 100, basis: 'encoded' });
  });

  it('says of an unreadable file what is wrong, and counts its bytes as unknown', () => {
    const { images, totals } = rankImages(
      surveyOf([{ ...plain, readable: false }, plain]),
      defaultPolicy,
    );
    const last = images.at(-1)!;
    expect(last).toMatchObject({ neededBytes: null, wasteBytes: null, need: null });
    expect(last.findings).toContainEqual({ id: 'unreadable', message: 'it is HTML, not an image' });
    expect(totals.unknownBytes).toBe(900);
  });

  it('lists files that no element shows, and does not judge them', () => {
    const facts = surveyOf([plain, plain]);
    const placements = facts.placements.filter(({ contentHash }) => contentHash === 'hash-0');
    const { images, unplaced, totals } = rankImages({ ...facts, placements }, defaultPolicy);
    expect(images).toHaveLength(2);
    expect(unplaced).toBe(1);
    expect(images[1]).toMatchObject({ wasteBytes: null, placements: [] });
    expect(images[1]!.findings.map(({ id }) => id)).toEqual(['placed-nowhere']);
    expect(totals.unknownBytes).toBe(900);
  });

  it('joins each placement with the slot curve of its element', () => {
    const { images } = rankImages(surveyOf([plain]), defaultPolicy);
    const curves = images[0]!.placements.map(({ page, slotCurve }) => [page, slotCurve?.length]);
    expect(curves).toContainEqual(['http://a.test/0', 1]);
    expect(curves).toContainEqual(['http://a.test/1', undefined]);
  });

  it('finds what is no waste: blurred, mislabelled, sent under several addresses', () => {
    const facts = surveyOf([{ ...plain, addresses: 2 }]);
    const { images } = rankImages(
      {
        ...facts,
        placements: facts.placements.map((one) => ({ ...one, slot: { width: 1500, height: 750 } })),
        responses: facts.responses.map((one) => ({ ...one, declaredType: 'image/png' })),
      },
      defaultPolicy,
    );
    const found = images[0]!.findings.map(({ id }) => id).sort();
    expect(found).toEqual(['mislabelled', 'nameless', 'several-addresses', 'too-few-pixels']);
  });
});

describe('largestNeeds', () => {
  it('is the largest need of each file that shows pixels, at the density of its views', () => {
    const { placements, files } = surveyOf([plain, { ...plain, shown: false }]);
    const views = [
      { ...defaultViews[0]!, density: 1.5 },
      { ...defaultViews[2]!, density: 1 },
    ];
    const seen = placements.filter(({ view }) => views.some(({ name }) => name === view));
    const needs = largestNeeds(seen, files, views, defaultPolicy);
    expect([...needs.keys()]).toEqual(['hash-0']);
    expect(needs.get('hash-0')).toEqual({ width: 150, height: 75 });
  });
});
