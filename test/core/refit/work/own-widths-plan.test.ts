import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import { acceptedFormats } from '../../../../src/core/refit/plan/accepted-formats.js';
import { askedWidth, ownChoices } from '../../../../src/core/refit/plan/own-choices.js';
import { elementImages } from '../../../../src/core/refit/markup/element-images.js';
import { formFor, isNegotiated } from '../../../../src/core/refit/markup/markup-form.js';
import { loadingChange } from '../../../../src/core/refit/markup/loading.js';
import { snippetsOf } from '../../../../src/core/refit/markup/snippet.js';
import { sourcesOfSurvey } from '../../../../src/core/refit/plan/survey-sources.js';
import { planOwnWidths } from '../../../../src/core/refit/work/own-widths-plan.js';
import { ownWidthsItems } from '../../../../src/core/refit/work/own-widths-items.js';
import type { ElementMarkup } from '../../../../src/core/slots/element-markup.js';
import { madeJob } from '../../../support/made-job.js';
import { plainSketch, surveyOf } from '../../../support/survey-facts.js';

/** A picture whose site offers 1000 and 400 pixels of it, in a slot of 100, with `sizes` that say all of the window. */
const element: ElementMarkup = {
  attributes: [
    ['src', '/0-0.jpg'],
    ['srcset', '/0-1.jpg 400w, /0-0.jpg 1000w'],
    ['sizes', '100vw'],
    ['width', '1000'],
    ['height', '500'],
  ],
  picture: null,
};
const facts = surveyOf([{ ...plainSketch, bytes: 90_000, pages: [0] }], [], () => element);
const ranking = rankImages(facts, defaultPolicy);
const choices = ownChoices(ranking);
const bytes: Readonly<Record<string, number>> = {
  'http://a.test/0-0.jpg': 90_000,
  'http://a.test/0-1.jpg': 20_000,
};
const job = madeJob({ isInPlace: true });
const inPlace = {
  ...job,
  file: {
    ...job.file,
    originals: ['http://a.test/0-1.jpg'],
    from: { width: 800, height: 400, bytes: 20_000, mediaType: 'image/jpeg' },
  },
};
const noWidths = { all: [], of: () => [], pathOf: () => null };

describe('what mends images that a site offers in several widths', () => {
  it('knows the elements that choose, and what they ask for', () => {
    expect(choices.map(({ view, candidates }) => [view.name, candidates.length])).toEqual([
      ['phone', 2],
      ['laptop', 2],
    ]);
    expect(choices.map(({ view }) => askedWidth('100px', view))).toEqual([300, 100]);
    expect(askedWidth(null, choices[1]!.view)).toBe(1_366);
  });

  it('saves by sizes what the narrower file is smaller, and by each later step what is left', () => {
    const plan = planOwnWidths(choices, {
      sizesOf: () => '100px',
      bytesOf: (url) => bytes[url],
      jobAt: (url) => (url.endsWith('/0-1.jpg') ? inPlace : undefined),
      widths: noWidths,
    });
    const [sizes, ...others] = plan.sizes;
    expect(others).toEqual([]);
    expect(sizes!.saved).toBeCloseTo(70_000, 3);
    // The JPEG of the same pixels has 8,000 bytes, and so has the WebP.
    expect(plan.encodingSaved).toBeCloseTo(12_000, 3);
    expect([plan.formatSaved, plan.widthsSaved, plan.unknown]).toEqual([0, 0, []]);
    const items = ownWidthsItems(plan, [inPlace]);
    expect(items.map(({ who, what }) => [who, what.slice(0, 26)])).toEqual([
      ['markup', 'write sizes="100px"'],
      ['content', 'copy the refitted files ov'],
    ]);
  });

  it('saves by widths that the site will make, and says them once', () => {
    const narrow = { ...inPlace.variants[1]!, size: { width: 300, height: 150 }, bytes: 1_000 };
    const widest = {
      ...inPlace,
      variants: [...inPlace.variants, narrow],
      file: { ...inPlace.file, originals: ['http://a.test/0-0.jpg'] },
    };
    const plan = planOwnWidths(choices, {
      sizesOf: () => '100px',
      bytesOf: (url) => bytes[url],
      jobAt: (url) => (url.endsWith('/0-0.jpg') ? widest : undefined),
      widths: { ...noWidths, all: [300], of: () => [300] },
    });
    expect(plan.widthsSaved).toBeCloseTo(19_000, 3);
    expect(ownWidthsItems(plan, [widest]).map(({ what }) => what)).toContain(
      'have the site make these widths of its pictures as well, then copy the files of the refit over them: 300',
    );
  });

  it('counts visits as unchanged whose next file nobody knows', () => {
    const plan = planOwnWidths(choices, {
      sizesOf: () => '100px',
      bytesOf: (url) => (url.endsWith('/0-0.jpg') ? 90_000 : undefined),
      jobAt: () => undefined,
      widths: noWidths,
    });
    expect(plan.unknown).toEqual(['http://a.test/0-1.jpg']);
    expect(plan.sizes[0]!.saved).toBe(0);
  });

  it('gives its elements other sizes and nothing else, and its files their own names', () => {
    const images = ranking.images;
    const elements = elementImages(ranking, defaultPolicy);
    const { snippets } = snippetsOf(images[0]!, null, {
      ...{ groups: new Map(), elements, density: 2 },
      form: (image) => formFor(image, defaultPolicy),
      isNegotiated: (image) => isNegotiated(image, defaultPolicy),
    });
    expect(snippets.map(({ text }) => text)).toEqual([
      expect.stringMatching(
        /^<img src="\/0-0\.jpg" srcset="\/0-1\.jpg 400w, \/0-0\.jpg 1000w" sizes="\(min-resolution.*, 100px" width="1000" height="500">$/,
      ),
    ]);
    expect(snippets[0]!.orElse!.text).toContain('sizes="100px"');
    const { sources, originals } = sourcesOfSurvey(images, {
      ...{ widthsOf: () => [], elements, reasons: new Map(), candidates: [] },
      uses: [{ url: 'http://a.test/whole.jpg', kind: 'link', page: 'http://a.test/0' }],
      systemWidths: noWidths,
    });
    expect(sources.map(({ inPlace: own }) => own)).toEqual([true]);
    expect(originals).toEqual([
      { path: '0-1.jpg', contentHash: null, wholeWidth: null },
      { path: 'whole.jpg', contentHash: null, wholeWidth: null },
      { path: '0-0.jpg', contentHash: 'hash-0', wholeWidth: 1_000 },
    ]);
  });
});

describe('formats that a server can choose', () => {
  it('are files of the same pixels, one of which every browser reads', () => {
    expect(acceptedFormats([madeJob()])).toEqual([
      { path: '0-0.jpg', accepted: '0-0.webp', mediaType: 'image/webp' },
      { path: '0-0-400.jpg', accepted: '0-0-400.webp', mediaType: 'image/webp' },
    ]);
  });

  it('are no files of which the modern one is larger', () => {
    const job = madeJob();
    const variants = job.variants.map((one) =>
      one.use === 'width' ? { ...one, bytes: 9_999 } : one,
    );
    expect(acceptedFormats([{ ...job, variants }]).map(({ path }) => path)).toEqual(['0-0.jpg']);
  });

  it('are an original that stays, and what was made of all its pixels', () => {
    const job = madeJob({ isInPlace: true, variants: [] });
    const to = { ...job.file.to, width: 1_000, height: 500 };
    const whole = { ...job, file: { ...job.file, to } };
    const pair = { path: '0-0.jpg', accepted: '0-0.webp', mediaType: 'image/webp' };
    expect(acceptedFormats([whole])).toEqual([pair]);
    expect(acceptedFormats([job])).toEqual([]);
    const asked = { ...whole.file, originals: ['http://a.test/0-0.jpg?v=2'] };
    expect(acceptedFormats([{ ...whole, file: asked }])).toEqual([]);
  });
});

describe('when an image is requested', () => {
  const placed = {
    ...ranking.ledger.facts.placements.at(0),
    row: 0,
    curve: null,
    element: null,
    path: [],
  };
  const change = (more: object) => loadingChange([{ ...placed, ...more }]);

  it('changes only where it is wrong', () => {
    expect(change({})).toEqual({});
    expect(change({ largest: true })).toEqual({ fetchpriority: 'high' });
    expect(change({ loading: 'lazy' })).toEqual({ loading: null });
    expect(change({ aboveFold: false })).toEqual({ loading: 'lazy' });
    expect(change({ aboveFold: false, fetched: 'on-scroll' })).toEqual({});
  });
});
