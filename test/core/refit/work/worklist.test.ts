import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import { pictureFinder } from '../../../../src/core/rank/ranked-picture.js';
import type { OwnWidthsPlan } from '../../../../src/core/refit/work/own-widths-plan.js';
import type { MadeJob } from '../../../../src/core/refit/refit-job.js';
import { worklistOf } from '../../../../src/core/refit/work/worklist.js';
import type { WorklistInputs } from '../../../../src/core/refit/work/worklist.js';
import type { SurveyFacts } from '../../../../src/core/survey/survey.js';
import { madeJob } from '../../../support/made-job.js';
import { plainSketch, surveyOf } from '../../../support/survey-facts.js';

const words = ({ id }: { readonly id: string }) => id;
const nothing: OwnWidthsPlan = {
  ...{ sizes: [], encodingSaved: 0, formatSaved: 0 },
  ...{ widths: [], widthsSaved: 0, unknown: [] },
};

function listOf(
  sketches: readonly (typeof plainSketch)[],
  jobs: readonly MadeJob[] = [],
  change: Partial<WorklistInputs> = {},
  pictures: Partial<SurveyFacts> = {},
) {
  const facts = { ...surveyOf(sketches), ...pictures };
  const { images, pictures: shown, ledger } = rankImages(facts, defaultPolicy);
  const { perVisit } = ledger;
  const policy = { ...defaultPolicy, worthwhile: { bytes: 0, share: 0 } };
  const groups = new Map(facts.pages.map(({ url, group }) => [url, group]));
  const items = worklistOf({
    ...{
      images,
      jobs,
      site: [],
      policy,
      groups,
      ownWidths: nothing,
      wordsOf: words,
      idOf: (key) => key,
    },
    pictureOf: pictureFinder(shown),
    ...change,
  });
  return { items, perVisit };
}

describe('the work list', () => {
  it('saves no more than is wasted, and what spares the most bytes comes first', () => {
    const { items, perVisit } = listOf(
      [
        { ...plainSketch, bytes: 90_000, best: 8_000, addresses: 2 },
        { ...plainSketch, bytes: 500, best: 100, thirdParty: true },
        { ...plainSketch, bytes: 700, shown: [true, false] },
      ],
      [madeJob()],
    );
    const savings = items.map(({ savedPerVisit }) => savedPerVisit);
    expect(savings).toEqual([...savings].sort((a, b) => b - a));
    const sum = savings.reduce((all, one) => all + one, 0);
    expect(sum).toBeLessThanOrEqual(perVisit.wasteBytes + 1);
    expect(sum).toBeGreaterThan(perVisit.wasteBytes * 0.9);
  });

  it('has what is to be done about files that are no images, each file once', () => {
    const page = 'http://a.test/0';
    const about = {
      ...{ group: null, thirdParty: false, pages: [page] },
      ...{ part: '', count: 1, timePerVisit: null },
    };
    const { items } = listOf([plainSketch], [], {
      site: [
        {
          ...{ ...about, id: 'uncompressed-text', url: 'http://a.test/s.css', perVisit: 4_000 },
          data: { encoding: 'identity', wireBytes: 6_000, gzipBytes: 2_000, brotliBytes: 1_900 },
        },
        {
          ...{ ...about, id: 'uncompressed-text', url: page, perVisit: 900 },
          data: { encoding: 'identity', wireBytes: 6_000, gzipBytes: 2_000, brotliBytes: 1_900 },
          ...{ group: '/*', pages: [page, 'http://a.test/1', 'http://a.test/2'] },
        },
        {
          ...{ ...about, id: 'failed-file', url: 'http://b.test/x.js', perVisit: null },
          ...{ data: { status: 404, blocks: false }, thirdParty: true },
        },
      ],
    });
    const files = items.filter(({ images }) => images === 0);
    expect(files.map(({ who, what, savedPerVisit }) => [who, what, savedPerVisit])).toEqual([
      ['server', 'send it compressed', 4_000],
      ['server', 'send it compressed (and 2 more pages of its group)', 900],
      ['third party', 'correct its address, or remove what asks for it', 0],
    ]);
    expect(files[0]).toMatchObject({ url: 'http://a.test/s.css', pages: [page], to: '' });
    expect(new Set(items.map(({ id }) => id)).size).toBe(items.length);
  });

  it('says who does what', () => {
    const { items } = listOf(
      [
        { ...plainSketch, bytes: 90_000, best: 8_000, addresses: 2 },
        { ...plainSketch, bytes: 5_000, thirdParty: true },
        { ...plainSketch, bytes: 700, shown: [false, false] },
        { ...plainSketch, readable: false },
      ],
      [madeJob()],
    );
    const told = items.map(({ who, what, url }) => `${who}: ${what} (${url.slice(-7)})`);
    expect(told).toEqual(
      expect.arrayContaining([
        'content: replace it with the refitted file (0-0.jpg)',
        'markup: offer it in 2 widths (markup in snippets.md) (0-0.jpg)',
        'markup: link to one address: it is the same file under 2 addresses (0-0.jpg)',
        'third party: ask for the image in the size in which it is shown (1-0.jpg)',
        'markup: do not send it where it is not shown (2-0.jpg)',
        'content: unreadable (3-0.jpg)',
      ]),
    );
  });

  it('has one row for the files of one picture', () => {
    const big = { ...plainSketch, bytes: 90_000, best: 8_000 };
    const job = (at: number) => {
      const made = madeJob();
      return { ...made, variants: [], file: { ...made.file, contentHash: `hash-${at}` } };
    };
    const one = { ofFile: Int32Array.of(0, 0), files: [[1, 0]] };
    const rows = (pictures: Partial<SurveyFacts>) =>
      listOf([big, big], [job(0), job(1)], {}, pictures).items.filter(({ what }) =>
        what.startsWith('replace'),
      );
    const [merged, ...none] = rows({ pictures: one });
    expect(none).toEqual([]);
    expect(merged).toMatchObject({
      what: 'replace its 2 files with the refitted ones',
      images: 2,
    });
    const apart = rows({});
    expect(apart).toHaveLength(2);
    const saved = apart.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0);
    expect(merged!.savedPerVisit).toBeCloseTo(saved, 6);
  });

  it('suggests a video for an animation that stays heavy', () => {
    const job = madeJob({ frames: 12 });
    const heavy = { ...job, file: { ...job.file, to: { ...job.file.to, bytes: 400_000 } } };
    const { items } = listOf([{ ...plainSketch, bytes: 900_000, best: 400_000 }], [heavy]);
    expect(items.map(({ what }) => what).join()).toMatch(
      /make it a video: its 12 frames take 400 kB/,
    );
  });

  it('has one row for the images of a slot family, whatever their number, with the same id every time', () => {
    const sketches = [0, 1, 2].map(() => ({ ...plainSketch, bytes: 90_000, best: 8_000 }));
    const jobs = sketches.map((_, at) => {
      const job = madeJob();
      return { ...job, file: { ...job.file, contentHash: `hash-${at}` } };
    });
    const { items } = listOf(sketches, jobs);
    const offers = items.filter(({ what }) => what.startsWith('offer'));
    expect(offers.map(({ what, images }) => [what, images])).toEqual([
      ['offer these 3 images in 2 widths (markup in snippets.md)', 3],
    ]);
    expect(listOf(sketches, jobs).items.map(({ id }) => id)).toEqual(items.map(({ id }) => id));
    expect(new Set(items.map(({ id }) => id)).size).toBe(items.length);
  });

  it('says nothing of files that are too small to be worth a word', () => {
    const policy = { ...defaultPolicy, worthwhile: { bytes: 1_000, share: 0.01 } };
    const small = { ...plainSketch, bytes: 900, addresses: 2, thirdParty: true };
    const { items } = listOf([small, { ...small, thirdParty: false }], [], { policy });
    expect(items.filter(({ savedPerVisit }) => savedPerVisit > 0)).toEqual([]);
  });
});
