import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { narrowFacts } from '../../../src/core/rank/filter.js';
import { pageStoryOf } from '../../../src/core/rank/page-story.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { pageOf, plainSketch, surveyOf } from '../../support/survey-facts.js';

describe('the story of a page', () => {
  it('has its images as they stand in the document, and where each is seen', () => {
    const facts = surveyOf([
      { ...plainSketch, pages: [0], shown: [true, false] },
      { ...plainSketch, pages: [0, 1], bytes: 90_000 },
      { ...plainSketch, pages: [1], bytes: 900_000 },
    ]);
    const narrowed = narrowFacts(facts, { pages: [pageOf(0)] });
    const { images } = rankImages(narrowed, defaultPolicy);
    const story = pageStoryOf(facts.pages[0]!, images, [...narrowed.placements], defaultPolicy);
    const told = story.images.map(({ image, shown, firstScreen }) => [
      image.file.contentHash,
      shown,
      firstScreen,
    ]);
    // The heavier one comes second in the document.
    expect(told).toEqual([
      ['hash-0', ['phone'], ['phone']],
      ['hash-1', ['phone', 'laptop'], ['phone', 'laptop']],
    ]);
    const sum = story.images.reduce((all, { perVisit }) => all + perVisit.wasteBytes, 0);
    expect(story.perVisit.wasteBytes).toBeCloseTo(sum, 6);
    expect(story.findings).toEqual([]);
  });

  it('has what was found of the page itself', () => {
    const facts = surveyOf([plainSketch]);
    const heavy = {
      ...facts.pages[0]!,
      bytesByType: { ...facts.pages[0]!.bytesByType, image: 900_000 },
    };
    const { images } = rankImages(facts, defaultPolicy);
    const story = pageStoryOf(heavy, images, [...facts.placements], defaultPolicy);
    expect(story.findings).toEqual([
      { id: 'heavy-page', data: { bytes: 900_000, limit: 500_000 } },
    ]);
  });
});
