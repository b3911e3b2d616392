import { describe, expect, it } from 'vitest';
import { fixOf } from '../../../src/core/refit/work/fix.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { pageStoryOf } from '../../../src/core/rank/page-story.js';
import { pictureFinder } from '../../../src/core/rank/ranked-picture.js';
import { compareSurveys } from '../../../src/core/rank/survey-comparison.js';
import { compareSurveysDocument } from '../../../src/output/json/compare-surveys.js';
import {
  familyStoryDocument,
  findingStoryDocument,
  imageStoryDocument,
  pageStoryDocument,
} from '../../../src/output/json/explain.js';
import { rankDocument } from '../../../src/output/json/rank.js';
import { surveyDocument } from '../../../src/output/json/survey.js';
import { drawFamilies, drawFinding } from '../../../src/output/terminal/explain-many.js';
import { drawImage } from '../../../src/output/terminal/explain.js';
import { drawPage } from '../../../src/output/terminal/explain-page.js';
import { rankViewOf } from '../../support/ranked.js';
import { schemaErrors } from '../../support/schemas.js';
import { plainSketch } from '../../support/survey-facts.js';

const sketches = [plainSketch, { ...plainSketch, readable: false, bytes: 5_000 }];
/** A document as it is printed, with content hashes as they really are. */
const asJson = (document: unknown): unknown =>
  JSON.parse(
    JSON.stringify(document).replaceAll(
      /"hash-(\d)"/g,
      (_, digit) => `"${'a'.repeat(63)}${digit}"`,
    ),
  );

describe('the documents', () => {
  it('of rank has rows, images and findings with their evidence, by its schema', () => {
    const view = rankViewOf(sketches, { by: 'image' });
    const document = rankDocument(view);
    expect(schemaErrors('rank', asJson(document))).toEqual([]);
    const broken = document.images.find(({ problem }) => problem !== null)!;
    expect(broken.findings[0]).toEqual({
      id: 'unreadable',
      message: 'it is HTML, not an image',
      data: { problem: 'it is HTML, not an image' },
    });
    const byPage = rankViewOf(sketches, { by: 'page' });
    expect(rankDocument({ ...byPage, imageLimit: 1 })).toMatchObject({ imagesLeftOut: 1 });
  });

  it('of explain tells an image and a page, as the text does', () => {
    const { result } = rankViewOf(sketches);
    const image = result.images[0]!;
    const fix = fixOf(image, 5);
    const picture = pictureFinder(result.pictures)(image);
    const network = { name: 'mobile', latency: 120, down: 3_000, up: 750 };
    const spared = { largestContentfulPaint: 240.4, load: null, pages: 2, network };
    const imageView = { image, picture, others: [], spared, result, fix, density: 2, top: 12 };
    expect(schemaErrors('explain', asJson(imageStoryDocument(imageView)))).toEqual([]);
    const text = drawImage(imageView, { width: 140, colour: false });
    for (const step of fix.steps) expect(text).toContain(step);
    expect(text).toContain(
      'An average visit to the 2 timed pages that are sent it would be spared 240 ms until largest contentful paint, predicted from loads on mobile',
    );
    const others = Array.from({ length: 7 }, () => image);
    const among = drawImage({ ...imageView, others }, { width: 140, colour: false });
    expect(among).toMatch(/7 more files with that name or selector: http[^·]+ ·/);
    expect(among).toMatch(/ and 2 more$/);
    const page = result.pages[0]!;
    const story = pageStoryOf(
      page,
      result.images,
      [...result.ledger.facts.placements],
      defaultPolicy,
    );
    const pageView = { story, load: null, site: [], spared: null, result, top: 12 };
    expect(schemaErrors('explain', asJson(pageStoryDocument(pageView)))).toEqual([]);
    expect(drawPage(pageView, { width: 140, colour: false })).toContain('/0-0.jpg');
  });

  it('of explain tells the slots of rank and the images with a finding, as the text does', () => {
    const { result, rows } = rankViewOf(sketches);
    const familyView = { rows, result, top: 1 };
    expect(schemaErrors('explain', asJson(familyStoryDocument(familyView)))).toEqual([]);
    const screen = { width: 100, colour: false };
    const families = drawFamilies(familyView, screen);
    expect(families).toContain(rows[0]!.family!.slot);
    expect(families).toContain(`widths of ${rows[0]!.family!.plan.widths.join(', ')} px`);
    const images = result.images.filter(({ findings }) =>
      findings.some(({ id }) => id === 'unreadable'),
    );
    const findingView = { id: 'unreadable', images, site: [], result, top: 5 };
    const document = findingStoryDocument(findingView);
    expect(schemaErrors('explain', asJson(document))).toEqual([]);
    expect(document.finding.images).toHaveLength(1);
    expect(drawFinding(findingView, screen)).toMatch(
      /1 image file of made-up has it.*\n.*1-0\.jpg/,
    );
    expect(drawFinding({ ...findingView, images: [] }, screen)).toContain(
      'Nothing in made-up has it',
    );
  });

  it('of a survey and of two are what their schemas say', () => {
    const { result } = rankViewOf(sketches);
    const { survey, pages } = result;
    const view = { survey, pages, skipped: [], missing: [], interrupted: false, top: 30 };
    expect(schemaErrors('survey', asJson(surveyDocument(view)))).toEqual([]);
    const compared = {
      before: survey,
      after: survey,
      comparison: compareSurveys(result, result),
    };
    const document = compareSurveysDocument({ compared, top: 20 });
    expect(schemaErrors('compare-surveys', asJson(document))).toEqual([]);
  });
});
