import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import type { ElementImages } from '../../../../src/core/refit/markup/element-images.js';
import { addressOf } from '../../../../src/core/refit/markup/refitted-element.js';
import { newElementText } from '../../../../src/core/refit/markup/new-element.js';
import { snippetsOf } from '../../../../src/core/refit/markup/snippet.js';
import type { SnippetContext } from '../../../../src/core/refit/markup/snippet.js';
import type { ElementMarkup } from '../../../../src/core/slots/element-markup.js';
import { madeJob } from '../../../support/made-job.js';
import { plainSketch, surveyOf } from '../../../support/survey-facts.js';

const elements: ElementImages = {
  isSuperseded: () => false,
  inAllViews: (one) => [one],
  moreWidths: () => [],
};
const context: SnippetContext = {
  ...{ groups: new Map(), elements, form: () => 'picture', isNegotiated: () => false },
  density: 2,
};
const plain: ElementMarkup = {
  attributes: [
    ['class', 'wide'],
    ['src', '/0-0.jpg'],
    ['onclick', 'open()'],
    ['width', '100'],
    ['height', '50'],
  ],
  picture: null,
};

function imageOf(change: Partial<typeof plainSketch> = {}, element: ElementMarkup | null = plain) {
  const facts = surveyOf([{ ...plainSketch, ...change }], [], () => element);
  return rankImages(facts, defaultPolicy).images[0]!;
}

const first = (element: ElementMarkup, change: Partial<SnippetContext> = {}) =>
  snippetsOf(imageOf({ pages: [0] }, element), madeJob(), { ...context, ...change }).snippets[0]!;

describe('a snippet', () => {
  it('is the element as it stands, with every width in both formats and sizes from the slot curve', () => {
    const snippet = first(plain);
    expect(snippet).toMatchObject({ language: 'html', replaces: 'element' });
    expect(snippet.before).toBe(
      '<img class="wide" src="/0-0.jpg" onclick="open()" width="100" height="50">',
    );
    expect(snippet.text.split('\n')).toEqual([
      '<picture>',
      '  <source type="image/webp" srcset="/0-0-400.webp 400w, /0-0.webp 800w" sizes="100px">',
      '  <img class="wide" src="/0-0.jpg" onclick="open()" width="100" height="50" srcset="/0-0-400.jpg 400w, /0-0.jpg 800w" sizes="100px">',
      '</picture>',
    ]);
    expect(snippet.changes.map(({ action }) => action)).toEqual(['wrap', 'add', 'set', 'set']);
  });

  it('is an img alone where that is asked for, or where the server chooses the format', () => {
    expect(first(plain, { form: () => 'img' }).text).toContain('srcset="/0-0-400.webp 400w');
    const negotiated = first(plain, { form: () => 'img', isNegotiated: () => true });
    expect(negotiated.text).toContain('srcset="/0-0-400.jpg 400w');
    expect(negotiated.text).not.toContain('<picture');
  });

  it('keeps a box that the markup does not give, and does not meddle with one in other units', () => {
    const bare: ElementMarkup = { attributes: [['src', '/0-0.jpg']], picture: null };
    expect(first(bare).text).toContain('width="1000" height="500" style="--ratio: 1000 / 500"');
    const styled: ElementMarkup = {
      ...bare,
      attributes: [...bare.attributes, ['style', 'top: 0;']],
    };
    expect(first(styled).text).toContain('style="top: 0; --ratio: 1000 / 500"');
    const relative: ElementMarkup = { ...bare, attributes: [...bare.attributes, ['width', '50%']] };
    expect(first(relative).text).not.toMatch(/--ratio|height=/);
  });

  it('writes the new files where scripts would put the old ones back', () => {
    const late: ElementMarkup = {
      attributes: [
        ['data-src', '/0-0.jpg'],
        ['data-full-url', '/0-0.jpg'],
        ['src', '/0-0.jpg'],
      ],
      picture: null,
    };
    expect(first(late, { form: () => 'img' }).text).toMatch(
      /data-src="\/0-0\.webp" data-full-url="\/0-0\.jpg" src="\/0-0\.webp"/,
    );
  });

  it('leaves a picture alone that chooses by media, and says so', () => {
    const art: ElementMarkup = {
      ...plain,
      picture: { attributes: [], sources: [[['media', 'print']]] },
    };
    const { snippets, withheld } = snippetsOf(imageOf({ pages: [0] }, art), madeJob(), context);
    expect(snippets).toEqual([]);
    expect(withheld.map(({ reason }) => reason)).toEqual(['its picture element chooses by media']);
  });

  it('is one for each slot family: pages of one group share it, others have their own', () => {
    const image = imageOf({ pages: [0, 1, 2] });
    const pages = (groups: ReadonlyMap<string, string | null>) =>
      snippetsOf(image, madeJob(), { ...context, groups }).snippets.map(({ places }) =>
        places.map(({ page }) => page.slice('http://a.test'.length)),
      );
    expect(pages(new Map())).toEqual([['/0'], ['/1'], ['/2']]);
    const grouped = new Map([0, 2].map((page) => [`http://a.test/${page}`, 'even']));
    expect(pages(grouped)).toEqual([['/0', '/2'], ['/1']]);
  });

  it('is not made for elements whose markup comes from another file, nor for vectors', () => {
    const superseded = { ...context, elements: { ...elements, isSuperseded: () => true } };
    expect(snippetsOf(imageOf(), madeJob(), superseded).snippets).toEqual([]);
    const job = madeJob();
    const vector = {
      ...job,
      file: { ...job.file, to: { ...job.file.to, format: 'svg' as const } },
    };
    expect(snippetsOf(imageOf(), vector, context).snippets).toEqual([]);
  });

  it('lets no text of a page out of its attribute', () => {
    const hostile: ElementMarkup = {
      attributes: [...plain.attributes, ['alt', '"><script>alert(1)</script>\n&']],
      picture: null,
    };
    const { text } = first(hostile);
    expect(text).not.toContain('<script>');
    expect(text.match(/<img[^>]*>/)![0]).toMatch(/ alt="[^"<>]*"/);
  });

  it('asks for what nobody knows of a picture that is on no page yet', () => {
    const text = newElementText(madeJob(), { width: 1000, height: 500 }, 'picture');
    expect(text).toContain('<!-- describe the picture -->\n<!-- width of its slot -->\n<picture>');
    expect(text).toMatch(/<img src="[^"]*" alt="" width="1000" height="500"/);
  });

  it('names addresses below the root of the site, without the folder of the host', () => {
    const job = { root: 'http://a.test/', folder: 'a.test/' };
    expect(addressOf(job, { path: 'a.test/img/a kite.webp' })).toBe(
      'http://a.test/img/a%20kite.webp',
    );
  });
});
