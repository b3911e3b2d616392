import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import type { Policy } from '../../../src/core/policy/policy.js';
import { largestNeeds, needsOfPlacements } from '../../../src/core/waste/placement-needs.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { totalsOfFiles } from '../../../src/core/rank/sums/file-sums.js';
import { causes } from '../../../src/core/waste/waste.js';
import {
  anySketch,
  pageOf,
  plainSketch,
  sketchViews,
  surveyOf,
} from '../../support/survey-facts.js';
import { tablesOf } from '../../support/tables.js';

describe('rankImages', () => {
  it('has totals that are the sums of its files, for every survey', () => {
    fc.assert(
      fc.property(fc.array(anySketch, { maxLength: 12 }), (sketches) => {
        const { images } = rankImages(surveyOf(sketches), defaultPolicy);
        const totals = totalsOfFiles(images);
        const sum = (valueOf: (image: (typeof images)[number]) => number) =>
          images.reduce((all, image) => all + valueOf(image), 0);
        expect(totals.wasteBytes).toBe(sum(({ waste }) => waste?.wasteBytes ?? 0));
        expect(totals.neededBytes).toBe(sum(({ waste }) => waste?.neededBytes ?? 0));
        expect(totals.sentBytes).toBe(totals.neededBytes + totals.wasteBytes);
        for (const cause of causes)
          expect(totals.wasteByCause[cause]).toBe(sum(({ waste }) => waste?.causes[cause] ?? 0));
        const sent = sketches.reduce((all, { bytes, addresses }) => all + bytes * addresses, 0);
        expect(totals.sentBytes + totals.unknownBytes).toBe(sent);
      }),
    );
  });

  it('needs of a file what its encode has, and less in a view that needs less', () => {
    const facts = surveyOf([plainSketch]);
    const { images } = rankImages(facts, defaultPolicy);
    const [image] = images;
    expect(image!.waste).toMatchObject({ sentBytes: 900, neededBytes: 100, wasteBytes: 800 });
    const { visits } = facts;
    const needed = image!.deliveries.map(({ visit, verdict: { need, waste } }) => [
      visits[visit]!.view,
      need?.width,
      waste?.neededBytes,
    ]);
    // A quarter of the pixels, to the power of 0.7, is 0.379 of the bytes.
    expect(needed).toEqual([
      ['phone', 200, 100],
      ['laptop', 100, 38],
      ['phone', 200, 100],
      ['laptop', 100, 38],
    ]);
    expect(image!.basis).toBe('encoded');
  });

  it('weighs what an average visit has by shares and visits', () => {
    const facts = surveyOf(
      [
        { ...plainSketch, pages: [0] },
        { ...plainSketch, pages: [1] },
      ],
      [900, 100],
    );
    const { ledger, weights } = rankImages(facts, defaultPolicy);
    const { perVisit } = ledger;
    expect(perVisit.sentBytes).toBeCloseTo(900, 6);
    expect(weights.visitsAMonth).toBe(1000);
    const { images } = rankImages(facts, defaultPolicy);
    expect(images.map(({ perVisit: { sentBytes } }) => Math.round(sentBytes))).toEqual([810, 90]);
    // Of 900 bytes the phones (0.6) waste 800, the laptops (0.4) 862.
    expect(images[0]!.perVisit.wasteBytes).toBeCloseTo(0.9 * (0.6 * 800 + 0.4 * 862), 6);
    const unweighted = rankImages(facts, defaultPolicy, { unweighted: true }).images;
    expect(unweighted.map(({ perVisit: { sentBytes } }) => sentBytes)).toEqual([450, 450]);
  });

  it('wastes all of a file in a view in which it is not shown, and nothing of it where it is needed', () => {
    const { images } = rankImages(
      surveyOf([
        { ...plainSketch, bytes: 1000, best: 1000, slotWidth: 2000, shown: [true, false] },
      ]),
      defaultPolicy,
    );
    expect(images[0]!.waste?.wasteBytes).toBe(0);
    const wasted = images[0]!.deliveries.map(
      ({ verdict: judged }) => judged.waste?.causes.neverShown,
    );
    expect(wasted).toEqual([0, 1000, 0, 1000]);
    expect(images[0]!.perVisit.wasteBytes).toBeCloseTo(400, 6);
  });

  it('says of an unreadable file what is wrong, and counts its bytes as unknown', () => {
    const { images, ledger } = rankImages(
      surveyOf([{ ...plainSketch, readable: false }, plainSketch]),
      defaultPolicy,
    );
    const { perVisit } = ledger;
    const last = images.at(-1)!;
    expect([last.waste, last.need]).toEqual([null, null]);
    expect(last.findings).toContainEqual({
      id: 'unreadable',
      data: { problem: 'it is HTML, not an image' },
    });
    expect(totalsOfFiles(images).unknownBytes).toBe(900);
    expect(perVisit.unknownBytes).toBeCloseTo(900, 6);
    expect(perVisit.sentBytes).toBeCloseTo(900, 6);
  });

  it('lists files that no element shows, and does not judge them', () => {
    const facts = surveyOf([plainSketch, plainSketch]);
    const placed = [...facts.placements].filter(({ contentHash }) => contentHash === 'hash-0');
    const tables = tablesOf(facts.files, placed, [...facts.responses]);
    const { images, unplaced } = rankImages({ ...facts, ...tables }, defaultPolicy);
    expect(images).toHaveLength(2);
    expect(unplaced).toBe(1);
    expect([images[1]!.waste, images[1]!.placements]).toEqual([null, []]);
    expect(images[1]!.findings.map(({ id }) => id)).toEqual(['placed-nowhere']);
    expect(totalsOfFiles(images).unknownBytes).toBe(900);
  });

  it('joins each placement with the slot curve of its element', () => {
    const { images } = rankImages(surveyOf([plainSketch]), defaultPolicy);
    const curves = images[0]!.placements.map(({ page, slotCurve }) => [page, slotCurve?.length]);
    expect(curves).toContainEqual([pageOf(0), 1]);
    expect(curves).toContainEqual([pageOf(1), undefined]);
  });

  it('finds what is no waste: blurred, mislabelled, sent under several addresses', () => {
    const facts = surveyOf([{ ...plainSketch, addresses: 2, slotWidth: 1500 }]);
    const answers = [...facts.responses].map((one) => ({ ...one, declaredType: 'image/png' }));
    const tables = tablesOf(facts.files, [...facts.placements], answers);
    const { images } = rankImages({ ...facts, ...tables }, defaultPolicy);
    const found = images[0]!.findings.map(({ id }) => id);
    for (const id of ['mislabelled', 'nameless', 'several-addresses', 'too-few-pixels'])
      expect(found).toContain(id);
  });

  it('tells third parties from hosts that the owner has besides', () => {
    const facts = surveyOf([{ ...plainSketch, thirdParty: true }]);
    const foreign = (policy: Policy) =>
      rankImages(facts, policy).images.map(({ thirdParty, deliveries }) => [
        thirdParty,
        deliveries[0]!.verdict.thirdParty,
      ]);
    expect(foreign(defaultPolicy)).toEqual([[true, true]]);
    expect(foreign({ ...defaultPolicy, ownHosts: ['b.test'] })).toEqual([[false, false]]);
  });

  it('lets files be that a rule exempts, and says which rules hold for nothing', () => {
    const exempt = { group: 'even', exempt: true, reason: 'the poster is sold' };
    const idle = { address: '/none/*', zoom: 2, reason: 'to be looked at closely' };
    const policy = { ...defaultPolicy, rules: [exempt, idle] };
    const { images, unmatchedRules } = rankImages(
      surveyOf([
        { ...plainSketch, pages: [0] },
        { ...plainSketch, pages: [1] },
      ]),
      policy,
    );
    expect(images.map(({ waste }) => waste?.wasteBytes)).toEqual([800, 0]);
    expect(images[1]!.rules).toEqual([exempt]);
    expect(unmatchedRules).toEqual([idle]);
  });
});

describe('largestNeeds', () => {
  const needsOf = (views = sketchViews, policy: Policy = defaultPolicy) => {
    const facts = surveyOf([plainSketch, { ...plainSketch, shown: [false, false] }]);
    return largestNeeds(
      facts,
      needsOfPlacements({ ...facts, head: { ...facts.head, views } }, policy),
    );
  };

  it('is the largest need of each file that shows pixels, at the density of its views', () => {
    const views = [
      { ...sketchViews[0]!, density: 1.5 },
      { ...sketchViews[1]!, density: 1 },
    ];
    const needs = needsOf(views);
    expect([...needs.keys()]).toEqual(['hash-0']);
    expect(needs.get('hash-0')).toEqual({ width: 150, height: 75 });
  });

  it.each([
    [{ zoom: 2 }, 400],
    [{ minimum: 640 }, 640],
    [{ minimum: 50 }, 200],
    [{ exempt: true }, 1000],
  ])('is more where a rule allows it: %o', (allowed, width) => {
    const rules = [{ ...allowed, group: 'ev*', reason: 'because' }];
    expect(needsOf(sketchViews, { ...defaultPolicy, rules }).get('hash-0')?.width).toBe(width);
  });
});
