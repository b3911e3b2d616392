import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wholeNumbers } from '../../../src/core/base/whole-numbers.js';
import { figureMeasures } from '../../../src/core/history/figures.js';
import type { SurveyFigures } from '../../../src/core/history/figures.js';
import { movement } from '../../../src/core/history/movement.js';
import type { Move } from '../../../src/core/history/movement.js';
import { surveyFigures } from '../../../src/core/history/survey-figures.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { rowsOf } from '../../../src/core/rank/rank-view.js';
import { SentVisits } from '../../../src/core/rank/sent-visits.js';
import { noResources } from '../../../src/core/survey/resource.js';
import { anySketch, plainSketch, surveyOf } from '../../support/survey-facts.js';
import type { FileSketch } from '../../support/survey-facts.js';

function ranked(sketches: readonly FileSketch[]) {
  const facts = surveyOf(sketches);
  return { facts, ranking: rankImages(facts, defaultPolicy) };
}

function figuresOf(sketches: readonly FileSketch[]): SurveyFigures {
  const { facts, ranking } = ranked(sketches);
  return surveyFigures({
    sent: new SentVisits(ranking.ledger, noResources),
    pages: facts.pages,
    findings: {},
    partyOf: (url) => new URL(url).hostname,
  });
}

const sum = (moves: readonly Pick<Move, 'change'>[]) =>
  moves.reduce((all, { change }) => all + change, 0);

const sketches = fc.array(anySketch, { minLength: 1, maxLength: 6 });

describe('the figures of a survey', () => {
  it('add up: files and pages to the sums, and the waste to that of every ranking', () => {
    fc.assert(
      fc.property(sketches, (some) => {
        const { sums, files, ofPages } = figuresOf(some);
        for (const name of ['bytes', 'requests', 'wasteBytes'] as const)
          for (const rows of [files, ofPages])
            expect(rows.reduce((all, row) => all + row[name], 0)).toBe(sums[name]);
        const types = Object.values(sums.bytesByType).reduce((all, one) => all + one, 0);
        expect(types).toBe(sums.bytes);
        const { facts, ranking } = ranked(some);
        const query = { by: 'page', sort: 'waste', top: 99, filter: {} } as const;
        const rows = rowsOf({ ...ranking }, { ...query, policy: defaultPolicy });
        expect(Math.abs(sums.wasteBytes - rows.total.wasteBytes)).toBeLessThan(8);
        expect(ofPages).toHaveLength(facts.pages.length);
      }),
    );
  });

  it('tell what an average visit is sent, with headers', () => {
    // On the first of two pages, which half of the visits are on.
    const { sums, files } = figuresOf([
      { ...plainSketch, bytes: 10_000, pages: [0] },
      { ...plainSketch, bytes: 4_000, pages: [1] },
    ]);
    expect(files.map(({ bytes }) => bytes)).toEqual([5_100, 2_100]);
    expect(sums).toMatchObject({ bytes: 7_200, requests: 1_000 });
  });
});

describe('whole numbers', () => {
  it('add up to the rounded sum, each less than one from what it was', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e6, noNaN: true })), (values) => {
        const whole = wholeNumbers(values);
        const total = values.reduce((all, value) => all + value, 0);
        expect(whole.reduce((all, value) => all + value, 0)).toBe(Math.round(total));
        whole.forEach((value, at) => expect(Math.abs(value - values[at]!)).toBeLessThan(1));
      }),
    );
  });
});

describe('what moved between two surveys', () => {
  it('adds up to the difference, whatever it is sorted by', () => {
    fc.assert(
      fc.property(
        sketches,
        sketches,
        fc.constantFrom(...figureMeasures),
        (some, others, measure) => {
          const [before, after] = [figuresOf(some), figuresOf(others)];
          const moved = movement(before, after, measure);
          const { total } = moved;
          const valueIn = ({ sums }: SurveyFigures) =>
            ({ bytes: sums.bytes, waste: sums.wasteBytes, requests: sums.requests })[measure];
          expect(total.change).toBe(valueIn(after) - valueIn(before));
          const { files, pages, groups, types, parties, reasons } = moved;
          for (const moves of [files, pages, groups, types, parties, reasons])
            expect(sum(moves)).toBe(total.change);
          for (const file of files) expect(sum(file.reasons)).toBe(file.change);
        },
      ),
    );
  });

  it('says why: new, gone, another content, more visits', () => {
    const file = { ...plainSketch, pages: [0] };
    const one = figuresOf([file, { ...plainSketch, pages: [1], bytes: 2_000 }]);
    const reasonsOf = (after: SurveyFigures) =>
      movement(one, after, 'bytes').files.map(({ reasons }) => reasons.map(({ reason }) => reason));
    expect(reasonsOf(one)).toEqual([]);
    const larger = {
      ...one,
      files: one.files.map((figure, at) =>
        at === 1 ? { ...figure, contentHash: 'another', bytes: figure.bytes + 500 } : figure,
      ),
    };
    expect(reasonsOf(larger)).toEqual([['content']]);
    expect(reasonsOf({ ...one, files: one.files.slice(0, 1) })).toEqual([['gone']]);
    const uncompressed = {
      ...one,
      files: one.files.map((figure, at) =>
        at === 0 ? { ...figure, bytes: figure.bytes + 100 } : figure,
      ),
    };
    expect(reasonsOf(uncompressed)).toEqual([['delivery']]);
    const everywhere = {
      ...one,
      files: one.files.map((figure, at) =>
        at === 0 ? { ...figure, bytes: figure.bytes * 2, requests: figure.requests * 2 } : figure,
      ),
    };
    expect(reasonsOf(everywhere)).toEqual([['visits']]);
  });
});
