import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import type { RankedImage } from '../../../../src/core/rank/ranked-image.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import { elementImages, elementKey } from '../../../../src/core/refit/markup/element-images.js';
import type { Placement } from '../../../../src/core/slots/placement.js';
import { pageOf, plainSketch, surveyOf } from '../../../support/survey-facts.js';
import { tablesOf } from '../../../support/tables.js';

const widths = [1_000, 400, 1_000];

/** A row of a survey: which of the three files an element on a page chose in a view. */
const spot = fc.record({
  page: fc.integer({ min: 0, max: 3 }),
  element: fc.integer({ min: 0, max: 2 }),
  view: fc.constantFrom('phone', 'laptop'),
  file: fc.integer({ min: 0, max: 2 }),
  shown: fc.boolean(),
  kind: fc.constantFrom('img', 'background'),
});
type Spot = typeof spot extends fc.Arbitrary<infer One> ? One : never;

function rankingOf(spots: readonly Spot[]) {
  const facts = surveyOf(widths.map(() => ({ ...plainSketch, pages: [0, 1, 2, 3] })));
  const [sample] = facts.placements;
  const files = facts.files.map((file, at) => ({
    ...file,
    intrinsic: { width: widths[at]!, height: widths[at]! / 2 },
  }));
  const placements = spots.map(({ page, element, view, file, shown, kind }): Placement => ({
    ...sample!,
    ...{ page: pageOf(page), view, kind, shown, contentHash: `hash-${file}` },
    selector: `li:nth-of-type(${element + 1}) > img`,
  }));
  const tables = tablesOf(files, placements, [...facts.responses]);
  return rankImages({ ...facts, files, ...tables }, defaultPolicy);
}

type Placed = RankedImage['placed'][number];

describe('elements that choose among several files', () => {
  it('are known in all their views, and made from their largest file, as one by one', () => {
    fc.assert(
      fc.property(fc.array(spot, { maxLength: 30 }), (spots) => {
        const ranking = rankingOf(spots);
        const elements = elementImages(ranking, defaultPolicy);
        const all = ranking.images.flatMap((image) =>
          image.placed.map((placed) => ({ image, placed })),
        );
        for (const { image, placed } of all) {
          const isElement = ({ kind, shown }: Placed) => kind === 'img' && shown;
          if (!isElement(placed)) {
            expect(elements.isSuperseded(image, placed)).toBe(false);
            expect(elements.inAllViews(placed)).toEqual([placed]);
            continue;
          }
          const same = all.filter(
            (one) => isElement(one.placed) && elementKey(one.placed) === elementKey(placed),
          );
          const rows = same.map((one) => one.placed.row).sort((a, b) => a - b);
          expect(elements.inAllViews(placed).map(({ row }) => row)).toEqual(rows);
          const width = (one: RankedImage) => one.file.intrinsic!.width;
          const [largest] = same.map((one) => one.image).toSorted((a, b) => width(b) - width(a));
          expect(elements.isSuperseded(image, placed)).toBe(largest !== image);
        }
      }),
    );
  });
});

describe('a placement that is looked up', () => {
  it('says what its row says', () => {
    const { images, ledger } = rankingOf([
      { page: 1, element: 2, view: 'phone', file: 1, shown: true, kind: 'img' },
    ]);
    const [placed] = images.flatMap((image) => image.placed);
    const row = ledger.facts.placements.at(placed!.row);
    for (const [name, value] of Object.entries(row))
      expect(placed![name as keyof Placement], name).toEqual(value);
    expect(placed!.curve).toEqual(ledger.facts.placements.curveAt(placed!.row));
  });
});
