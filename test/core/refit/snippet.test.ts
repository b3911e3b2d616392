import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import type { ElementImages } from '../../../src/core/refit/element-images.js';
import { addressOf, pictureText, snippetsOf } from '../../../src/core/refit/snippet.js';
import { madeJob } from '../../support/made-job.js';
import { plainSketch, surveyOf } from '../../support/survey-facts.js';

const noChoice: ElementImages = { isSuperseded: () => false, moreWidths: () => [] };
const groups = new Map<string, string | null>();

function imageOf(change: Partial<typeof plainSketch> = {}) {
  const facts = surveyOf([{ ...plainSketch, ...change }]);
  return rankImages(facts, defaultPolicy).images[0]!;
}

describe('a snippet', () => {
  it('offers every width in both formats, with sizes from the slot curve and the box of the original', () => {
    const [snippet] = snippetsOf(imageOf({ pages: [0] }), madeJob(), {
      groups,
      elements: noChoice,
    });
    expect(snippet).toMatchObject({ language: 'html', replaces: 'element' });
    expect(snippet!.text.split('\n')).toEqual([
      '<!-- describe the picture -->',
      '<picture>',
      '  <source type="image/webp" srcset="/0-0-400.webp 400w, /0-0.webp 800w" sizes="100px">',
      '  <img src="/0-0.jpg" srcset="/0-0-400.jpg 400w, /0-0.jpg 800w" sizes="100px" width="1000" height="500" style="--ratio: 1000 / 500" alt="">',
      '</picture>',
    ]);
  });

  it('is one for each slot family: pages of one group share it, others have their own', () => {
    const image = imageOf({ pages: [0, 1, 2] });
    const pages = (named: ReadonlyMap<string, string | null>) =>
      snippetsOf(image, madeJob(), { groups: named, elements: noChoice }).map(({ places }) =>
        places.map(({ page }) => page.slice('http://a.test'.length)),
      );
    expect(pages(groups)).toEqual([['/0'], ['/1'], ['/2']]);
    const grouped = new Map([0, 2].map((page) => [`http://a.test/${page}`, 'even']));
    expect(pages(grouped)).toEqual([['/0', '/2'], ['/1']]);
  });

  it('is not made for elements whose markup comes from another file, nor for vectors', () => {
    const elements = { ...noChoice, isSuperseded: () => true };
    expect(snippetsOf(imageOf(), madeJob(), { groups, elements })).toEqual([]);
    const job = madeJob();
    const vector = {
      ...job,
      file: { ...job.file, to: { ...job.file.to, format: 'svg' as const } },
    };
    expect(snippetsOf(imageOf(), vector, { groups, elements: noChoice })).toEqual([]);
  });

  it('lets no text of a page out of its attribute', () => {
    const alt = '"><script>alert(1)</script>\n&';
    const text = pictureText(madeJob(), {
      ...{ original: '"x', sizes: null, box: '', alt, load: 'when near' },
    });
    expect(text).not.toContain('<script>');
    expect(text.match(/<img[^>]*>/)![0]).toMatch(
      / alt="[^"<>]*" loading="lazy" decoding="async">$/,
    );
    expect(text).toContain('<!-- width of its slot -->');
  });

  it('names addresses below the root of the site, without the folder of the host', () => {
    const job = { root: 'http://a.test/', folder: 'a.test/' };
    expect(addressOf(job, { path: 'a.test/img/a kite.webp' })).toBe(
      'http://a.test/img/a%20kite.webp',
    );
  });
});
