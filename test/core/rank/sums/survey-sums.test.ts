import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import type { Policy } from '../../../../src/core/policy/policy.js';
import { groupings } from '../../../../src/core/rank/groupings.js';
import { ledgerOf, rankImages } from '../../../../src/core/rank/ranking.js';
import { rowsOf } from '../../../../src/core/rank/rank-view.js';
import { sortKeys } from '../../../../src/core/rank/sort-keys.js';
import type { RankRow, RankedRows } from '../../../../src/core/rank/rank-view.js';
import { chooseSummed, summedRows } from '../../../../src/core/rank/sums/summed-rows.js';
import { mergeParts, partSumsOf } from '../../../../src/core/rank/sums/survey-sums.js';
import type { SurveyFacts } from '../../../../src/core/survey/survey.js';
import { needsOfPlacements } from '../../../../src/core/waste/placement-needs.js';
import { weighVisits } from '../../../../src/core/waste/visit-weights.js';
import { anySketch, pageOf, surveyOf } from '../../../support/survey-facts.js';

/** What is printed of rows: all that tells one from another. */
function told(found: RankedRows) {
  const row = ({ key, thirdParty, perVisit, ofPage, files, pages, worst, family }: RankRow) => ({
    ...{ key, thirdParty, perVisit, ofPage, files, pages, family, worst: worst?.url ?? null },
  });
  const { unjudged, ...files } = found.files;
  return {
    rows: found.rows.map(row),
    thirdParty: found.thirdParty.map(row),
    leftOut: found.leftOut,
    files: { ...files, unjudged: [unjudged.count, unjudged.first.map(({ url }) => url)] },
    images: found.images.map((image) => [image.url, image.perVisit, found.pictureOf(image)]),
    totals: [found.total, found.thirdPartyTotal],
  };
}

/** The sums of a survey whose pages are parted as the numbers say. */
function sumsOf(facts: SurveyFacts, policy: Policy, partOf: (page: string) => number) {
  const { visits, pages, head, files, encoded, pictures } = facts;
  const weights = weighVisits(visits, pages, head.views);
  const numbers = [...new Set([0, ...visits.map(({ page }) => partOf(page))])].sort(
    (a, b) => a - b,
  );
  const parts = numbers.map((number) => {
    const keep = visits.map(({ page }) => partOf(page) === number);
    const part = {
      ...facts,
      placements: facts.placements.ofVisits(keep),
      responses: facts.responses.ofVisits(keep),
    };
    return partSumsOf(ledgerOf(part, policy, needsOfPlacements(part, policy), weights));
  });
  const byHash = new Map(encoded.map((one) => [one.contentHash, one]));
  const ofFiles = files.map(({ contentHash }) => byHash.get(contentHash));
  return mergeParts(parts, { files, pictures, encoded: ofFiles }, policy);
}

/** Which parts have a file is all that differs. */
function withoutParts({ tables, files }: ReturnType<typeof sumsOf>) {
  const { parts: _, partStarts: __, ...ofFiles } = files;
  return { tables, ofFiles };
}

const policies: readonly Policy[] = [
  defaultPolicy,
  { ...defaultPolicy, rules: [{ address: '*0-*.jpg', exempt: true, reason: 'as it is' }] },
];

const anySurvey = fc
  .tuple(
    fc.array(anySketch, { maxLength: 9 }),
    fc.array(fc.option(fc.integer({ min: 0, max: 100_000 })), { maxLength: 6 }),
  )
  .map(([sketches, counts]) => surveyOf(sketches, counts));

describe('the sums of the parts of a survey', () => {
  it('are those of the whole, to the byte, however it is parted and in every order', () => {
    const parting = fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 6, maxLength: 6 });
    fc.assert(
      fc.property(anySurvey, parting, fc.constantFrom(...policies), (facts, parted, policy) => {
        const place = (page: string) => facts.pages.findIndex(({ url }) => url === page);
        const whole = sumsOf(facts, policy, () => 0);
        const merged = sumsOf(facts, policy, (page) => parted[place(page)]!);
        expect(withoutParts(merged)).toEqual(withoutParts(whole));
      }),
      { numRuns: 150 },
    );
  });

  it('show what the whole survey shows, in every grouping and order', () => {
    const query = fc.record({
      by: fc.constantFrom(...groupings),
      sort: fc.constantFrom(...sortKeys.filter((key) => key !== 'time')),
      top: fc.integer({ min: 1, max: 8 }),
    });
    fc.assert(
      fc.property(anySurvey, query, fc.constantFrom(...policies), (facts, asked, policy) => {
        const ranking = rankImages(facts, policy);
        const imageLimit = 4;
        const found = rowsOf(ranking, { ...asked, filter: {}, policy });
        const expected = told({ ...found, images: found.images.slice(0, imageLimit) });
        const { tables, files } = sumsOf(facts, policy, (page) => page.length % 2);
        const sums = { table: tables[asked.by], files };
        const images = new Map(ranking.images.map((image) => [image.fileIndex, image]));
        const choice = chooseSummed(sums, asked, imageLimit);
        const shown = summedRows(
          ...([sums, choice, (file: number) => images.get(file)!] as const),
          (file) => facts.files[file]!.contentHash,
        );
        const listed = shown.images.slice(0, imageLimit);
        expect(told({ ...shown, images: listed })).toEqual(expected);
        // The files of rows by image are listed whole.
        if (asked.by === 'image')
          expect(shown.rows.map((row) => row.images)).toEqual(found.rows.map((row) => row.images));
      }),
      { numRuns: 150 },
    );
  });

  it('tell of pages that no other part has', () => {
    const facts = surveyOf([]);
    const { tables, files } = sumsOf(facts, defaultPolicy, () => 0);
    expect([tables.page.keys, files.order.length]).toEqual([[], 0]);
    const one = surveyOf([
      {
        bytes: 900,
        best: 100,
        addresses: 1,
        pages: [3],
        shown: [true, true],
        readable: true,
        thirdParty: false,
        slotWidth: 90,
      },
    ]);
    expect(sumsOf(one, defaultPolicy, () => 0).tables.page.keys).toEqual([pageOf(3)]);
  });
});
