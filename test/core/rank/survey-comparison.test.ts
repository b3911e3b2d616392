import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { compareSurveys } from '../../../src/core/rank/survey-comparison.js';
import { plainSketch, surveyOf } from '../../support/survey-facts.js';

function surveyed(sketches: readonly (typeof plainSketch)[]) {
  const facts = surveyOf(sketches);
  return { ...rankImages(facts, defaultPolicy), survey: facts.head, pages: facts.pages };
}

describe('the comparison of two surveys', () => {
  it('finds nothing between a survey and itself', () => {
    const one = surveyed([plainSketch, { ...plainSketch, bytes: 4_000 }]);
    const { images, pages, before, after } = compareSurveys(one, one);
    expect(before.perVisit).toEqual(after.perVisit);
    for (const change of [...images, ...pages])
      expect([change.by, change.bytes, change.perVisit]).toEqual(['address', 0, 0]);
  });

  it('says what came, went and changed, and its changes add up to that of the totals', () => {
    const one = surveyed([
      { ...plainSketch, bytes: 50_000 },
      { ...plainSketch, bytes: 4_000, pages: [0] },
    ]);
    const other = surveyed([{ ...plainSketch, bytes: 9_000, pages: [0, 1, 2] }]);
    const { images, pages, before, after } = compareSurveys(one, other);
    const told = images.map(({ before: was, after: is, bytes }) => [was?.bytes, is?.bytes, bytes]);
    expect(told).toEqual([
      [50_000, 9_000, -41_000],
      [4_000, undefined, -4_000],
    ]);
    expect(pages.filter(({ before: was }) => was === null)).toHaveLength(1);
    const whole = ({ sentBytes, unknownBytes }: typeof before.perVisit) => sentBytes + unknownBytes;
    const difference = whole(after.perVisit) - whole(before.perVisit);
    for (const changes of [images, pages]) {
      const sum = changes.reduce((all, { perVisit }) => all + perVisit, 0);
      expect(sum).toBeCloseTo(difference, 6);
    }
  });
});
