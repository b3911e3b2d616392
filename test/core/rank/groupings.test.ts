import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { slotOf } from '../../../src/core/slots/family-key.js';
import { narrowFacts } from '../../../src/core/rank/filter.js';
import { groupings } from '../../../src/core/rank/groupings.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { rowsOf } from '../../../src/core/rank/rank-view.js';
import type { RankQuery } from '../../../src/core/rank/rank-view.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import type { SurveyFacts } from '../../../src/core/survey/survey.js';
import { causes } from '../../../src/core/waste/waste.js';
import { anySketch, pageOf, plainSketch, surveyOf } from '../../support/survey-facts.js';

function rowsBy(facts: SurveyFacts, view: Partial<RankQuery> = {}) {
  const ranking = rankImages(facts, defaultPolicy);
  const all = { by: 'image', sort: 'waste', top: 1000, filter: {}, policy: defaultPolicy } as const;
  const found = rowsOf(ranking, { ...all, ...view });
  return { ...found, all: [...found.rows, ...found.thirdParty] };
}

describe('rowsOf', () => {
  it('adds up to the same total in every grouping, to the byte, for every survey', () => {
    const visits = fc.array(fc.option(fc.integer({ min: 0, max: 100_000 })), { maxLength: 6 });
    fc.assert(
      fc.property(fc.array(anySketch, { maxLength: 8 }), visits, (sketches, counts) => {
        const facts = surveyOf(sketches, counts);
        const { perVisit } = rankImages(facts, defaultPolicy).ledger;
        for (const by of groupings) {
          const { all, total } = rowsBy(facts, { by });
          const sum = (valueOf: (row: (typeof all)[number]) => number) =>
            all.reduce((sums, row) => sums + valueOf(row), 0);
          expect(total.wasteBytes).toBe(sum((row) => row.perVisit.wasteBytes));
          expect(total.neededBytes).toBe(sum((row) => row.perVisit.neededBytes));
          expect(total.unknownBytes).toBe(sum((row) => row.perVisit.unknownBytes));
          expect(total.sentBytes).toBe(total.wasteBytes + total.neededBytes);
          for (const cause of causes) {
            expect(total.causes[cause]).toBe(sum((row) => row.perVisit.causes[cause]));
            expect(Math.abs(total.causes[cause] - perVisit.causes[cause])).toBeLessThanOrEqual(
              0.51,
            );
          }
          for (const { perVisit: row } of all)
            expect(causes.reduce((all, cause) => all + row.causes[cause], 0)).toBe(row.wasteBytes);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('tells the need of the views that are looked at', () => {
    const facts = surveyOf([{ ...plainSketch, slotWidth: 100 }]);
    const needIn = (views: string[]) => {
      const { images } = rankImages(narrowFacts(facts, { views }), defaultPolicy);
      return [images[0]!.need?.width, images[0]!.basis];
    };
    expect(needIn([])).toEqual([200, 'encoded']);
    expect(needIn(['phone'])).toEqual([200, 'encoded']);
    expect(needIn(['laptop'])).toEqual([100, 'estimated']);
  });

  it('keeps to images with a finding, in rows, totals and lists alike', () => {
    const facts = surveyOf([
      { ...plainSketch, bytes: 900_000, best: 1_000 },
      { ...plainSketch, bytes: 2_000 },
    ]);
    const { all, images, total } = rowsBy(facts, { filter: { findings: ['ceiling-bytes'] } });
    expect(images.map(({ file }) => file.bytes)).toEqual([900_000]);
    expect(all).toHaveLength(1);
    expect(Math.abs(total.sentBytes - 900_000)).toBeLessThanOrEqual(1);
    const none = rowsBy(facts, { by: 'page', filter: { findings: ['unreadable'] } });
    expect([none.all, none.images]).toEqual([[], []]);
  });

  it('tells what a visit to a page itself is sent, whatever the visits of the others', () => {
    const facts = surveyOf(
      [
        { ...plainSketch, pages: [0, 1], bytes: 50_000, best: 10_000 },
        { ...plainSketch, pages: [1], bytes: 80_000, best: 20_000 },
      ],
      [9_000, 1_000],
    );
    const sums = (rows: readonly { ofPage: { sentBytes: number } | null }[]) =>
      rows.map(({ ofPage }) => ofPage!.sentBytes);
    const { rows } = rowsBy(facts, { by: 'page' });
    expect(rows.map(({ key }) => key)).toEqual([pageOf(0), pageOf(1)]);
    expect(sums(rows)).toEqual([50_000, 130_000]);
    expect(sums(rowsBy({ ...facts }, { by: 'page', sort: 'pages' }).rows)).toEqual(sums(rows));
    expect(rowsBy(facts, { by: 'host' }).rows[0]!.ofPage).toBeNull();
  });

  it('puts the slots of one template together, and third parties apart', () => {
    const facts = surveyOf([
      { ...plainSketch, pages: [0, 2, 4] },
      { ...plainSketch, pages: [0, 2], bytes: 500 },
      { ...plainSketch, pages: [0], thirdParty: true },
      { ...plainSketch, pages: [1] },
    ]);
    const { rows, thirdParty } = rowsBy(facts, { by: 'family' });
    expect(
      rows.map(({ family, files, pages }) => [family?.where, family?.slot, files, pages]),
    ).toEqual([
      ['even', 'ul > li > img', 2, 3],
      [pageOf(1), 'ul > li > img', 1, 1],
    ]);
    expect(thirdParty.map(({ family, files }) => [family?.where, files])).toEqual([['even', 1]]);
  });

  it('names the widths that serve a family, and the sizes that its slot wants', () => {
    const { rows } = rowsBy(surveyOf([{ ...plainSketch, pages: [0] }]), { by: 'family' });
    expect(rows[0]!.family).toMatchObject({ sizes: '100px', plan: { widths: [100, 200] } });
    // Phones get 200 pixels for 100 bytes, laptops 100 pixels for 38.
    expect(rows[0]!.family!.plan.bytes).toBeCloseTo(0.6 * 100 + 0.4 * 37.9, 1);
  });

  it('looks only at what it is asked for', () => {
    const facts = surveyOf([
      { ...plainSketch, bytes: 5_000 },
      { ...plainSketch, thirdParty: true },
      { ...plainSketch, shown: [false, false] },
    ]);
    const hashes = (filter: RankQuery['filter']) =>
      rowsBy(facts, { filter }).all.map(({ key }) => key);
    expect(hashes({ bytes: 1_000 })).toEqual(['hash-0']);
    expect(hashes({ party: 'third' })).toEqual(['hash-1']);
    expect(hashes({ causes: ['neverShown'] })).toEqual(['hash-2']);
    expect(hashes({ types: ['png'] })).toEqual([]);
  });

  it('sorts by what it is told to', () => {
    const facts = surveyOf([
      { ...plainSketch, bytes: 9_000, pages: [0] },
      { ...plainSketch, best: 800, pages: [0, 1, 2] },
    ]);
    const first = (sort: RankQuery['sort']) => rowsBy(facts, { sort }).rows[0]!.key;
    expect([first('waste'), first('needed'), first('pages')]).toEqual([
      'hash-0',
      'hash-1',
      'hash-1',
    ]);
  });
});

describe('narrowFacts', () => {
  it('keeps the visits that are meant, and the files that they have', () => {
    const facts = surveyOf([
      { ...plainSketch, pages: [0] },
      { ...plainSketch, pages: [1] },
    ]);
    const narrowed = narrowFacts(facts, { groups: ['ev*'], views: ['phone'] });
    expect(narrowed.pages.map(({ url }) => url)).toEqual([pageOf(0)]);
    expect([...narrowed.placements].map(({ page, view }) => [page, view])).toEqual([
      [pageOf(0), 'phone'],
    ]);
    const { images, ledger } = rankImages(narrowed, defaultPolicy);
    const { perVisit } = ledger;
    expect(images.map(({ file }) => file.contentHash)).toEqual(['hash-0']);
    expect(perVisit.sentBytes).toBeCloseTo(900, 6);
    expect(narrowFacts(facts, {})).toBe(facts);
  });
});

describe('slotOf', () => {
  it.each([
    ['main > ul > li:nth-of-type(3) > img', 'main > ul > li > img'],
    ['#card-17 > img', '#card-* > img'],
    ['#hero > img', '#hero > img'],
    ['x-kite:nth-of-type(2) >>> div > img', 'x-kite >>> div > img'],
  ])('%s is %s', (selector, slot) => {
    expect(slotOf(selector)).toBe(slot);
  });
});
