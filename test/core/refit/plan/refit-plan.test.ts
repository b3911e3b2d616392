import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import type { Policy } from '../../../../src/core/policy/policy.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import type { ElementImages } from '../../../../src/core/refit/markup/element-images.js';
import {
  needOfPicture,
  sourcesOfPictures,
} from '../../../../src/core/refit/plan/picture-sources.js';
import {
  littleGain,
  noGain,
  othersFirst,
  planRefit,
} from '../../../../src/core/refit/plan/refit-plan.js';
import type { RefitWriting } from '../../../../src/core/refit/plan/refit-plan.js';
import { sourcesOfSurvey } from '../../../../src/core/refit/plan/survey-sources.js';
import type { Encoded } from '../../../../src/core/survey/encoded.js';
import { plainFile } from '../../../support/image-file.js';
import { plainSketch, surveyOf } from '../../../support/survey-facts.js';

const elements: ElementImages = {
  isSuperseded: () => false,
  inAllViews: (one) => [one],
  moreWidths: () => [],
};
const systemWidths = { all: [], of: () => [], pathOf: () => null };
const worthwhile = { bytes: 0, share: 0 };

const writing: RefitWriting = {
  naming: { pattern: null, stems: new Map(), hashOf: () => '' },
  credits: new Map(),
};

function planOf(
  sketches: readonly (typeof plainSketch)[],
  widths: readonly number[] = [],
  policy: Policy = defaultPolicy,
  most?: number,
) {
  const { images } = rankImages(surveyOf(sketches), policy);
  const knowledge = {
    widthsOf: () => widths,
    elements,
    reasons: new Map<string, string>(),
    uses: [],
    candidates: [],
    systemWidths,
  };
  const { sources, originals } = sourcesOfSurvey(images, knowledge);
  return planRefit(sources, originals, writing, worthwhile, most);
}

describe('the plan of a refit', () => {
  it('makes each image at its need, with a fallback, and narrower widths in both formats', () => {
    const { jobs, kept } = planOf([{ ...plainSketch, slotWidth: 200 }], [150, 390, 400]);
    expect(kept).toEqual([]);
    const [job] = jobs;
    expect(job!.file).toMatchObject({
      originals: ['http://a.test/0-0.jpg'],
      path: '0-0.webp',
      to: { width: 400, height: 200, bytes: 100, format: 'webp' },
      savedBytes: 800,
    });
    // 390 is not a tenth narrower than the need.
    expect(job!.variants.map(({ path, use }) => [path, use])).toEqual([
      ['0-0.jpg', 'fallback'],
      ['0-0-150.webp', 'width'],
      ['0-0-150.jpg', 'fallback'],
    ]);
  });

  it('makes files of those that waste the most where there are more than one refit should bring', () => {
    const sketches = [900, 90_000, 100, 9_000].map((bytes) => ({ ...plainSketch, bytes }));
    const { jobs, kept } = planOf(sketches, [], defaultPolicy, 2);
    expect(jobs.map(({ file }) => file.originals[0]!.slice(-7))).toEqual(['1-0.jpg', '3-0.jpg']);
    const reasons = new Map(kept.map(({ url, reason }) => [url.slice(-7), reason]));
    expect(reasons.get('0-0.jpg')).toBe(othersFirst);
    // What cannot be made smaller is not to be waited for.
    expect(reasons.get('2-0.jpg')).toBe(noGain);
  });

  it('keeps what cannot be made smaller, what is not ours, and what the policy allows, each with its reason', () => {
    const policy: Policy = {
      ...defaultPolicy,
      rules: [{ address: '/3-*', exempt: true, reason: 'a gift' }],
    };
    const { jobs, kept } = planOf(
      [
        { ...plainSketch, best: 950 },
        { ...plainSketch, thirdParty: true },
        { ...plainSketch, readable: false },
        plainSketch,
        { ...plainSketch, shown: [false, false] },
      ],
      [],
      policy,
    );
    expect(jobs).toEqual([]);
    const reasons = kept.map(({ url, reason }) => [url.slice(-7), reason]);
    expect(reasons.sort()).toEqual([
      ['0-0.jpg', noGain],
      ['1-0.jpg', 'it belongs to a third party'],
      ['2-0.jpg', 'it is HTML, not an image'],
      ['3-0.jpg', 'the policy allows it as it is: a gift'],
      ['4-0.jpg', 'no page shows it'],
    ]);
  });

  it('keeps what would save less than is worth the work', () => {
    const { images } = rankImages(surveyOf([{ ...plainSketch, best: 870 }]), defaultPolicy);
    const knowledge = {
      ...{ widthsOf: () => [], elements, reasons: new Map<string, string>(), uses: [] },
      ...{ candidates: [], systemWidths },
    };
    const { sources, originals } = sourcesOfSurvey(images, knowledge);
    const keptFor = (bytes: number, share: number) =>
      planRefit(sources, originals, writing, { bytes, share }).kept.map(({ reason }) => reason);
    expect(keptFor(30, 0.01)).toEqual([]);
    expect(keptFor(31, 0.01)).toEqual([littleGain]);
    expect(keptFor(0, 0.04)).toEqual([littleGain]);
  });

  it('puts the files of several hosts into folders of their own', () => {
    const facts = surveyOf([plainSketch, { ...plainSketch, thirdParty: true }]);
    const { images } = rankImages(facts, { ...defaultPolicy, ownHosts: ['b.test'] });
    const knowledge = {
      widthsOf: () => [],
      elements,
      reasons: new Map<string, string>(),
      uses: [],
      ...{ candidates: [], systemWidths },
    };
    const { sources, originals } = sourcesOfSurvey(images, knowledge);
    const { jobs } = planRefit(sources, originals, writing, worthwhile);
    expect(jobs.map(({ file, root }) => [file.path, root]).sort()).toEqual([
      ['a.test/0-0.webp', 'http://a.test/'],
      ['b.test/1-0.webp', 'http://b.test/'],
    ]);
  });

  it('plans pictures of a folder in the widths that are asked for, none wider than the need', () => {
    const file = { ...plainFile, intrinsic: { width: 2_000, height: 1_000 }, bytes: 900_000 };
    const limits = { longest: 5_000, widths: [480, 960] };
    const need = needOfPicture(file, limits);
    expect(need).toEqual({ width: 960, height: 480 });
    const encoded: Encoded = {
      ...{ contentHash: file.contentHash, need, nature: 'photograph', format: 'webp' },
      ...{ attempts: [], resultHash: 'x', problem: null },
      steps: { metadata: 0, exponent: 1, sameFormat: 60_000, best: 50_000 },
    };
    const pictures = [{ file, encoded, paths: ['kites/a.png', 'kites/b.png'] }];
    const { sources, originals } = sourcesOfPictures(pictures, limits);
    const { jobs } = planRefit(sources, originals, writing, worthwhile);
    expect(jobs[0]!.file).toMatchObject({
      path: 'kites/a.webp',
      originals: ['kites/a.png', 'kites/b.png'],
    });
    expect(jobs[0]!.variants.map(({ size, format }) => `${format} ${size.width}`)).toEqual([
      'jpeg 960',
      'webp 480',
      'jpeg 480',
    ]);
    const broken = [{ file, encoded: null, paths: ['c.png'] }];
    const none = sourcesOfPictures(broken, limits);
    expect(planRefit(none.sources, none.originals, writing, worthwhile).kept).toEqual([
      { url: 'c.png', reason: 'it cannot be encoded' },
    ]);
  });
});
