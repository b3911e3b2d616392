import { describe, expect, it } from 'vitest';
import { noSketch, readSketch, sketchSize } from '../../../src/core/survey/document-sketch.js';
import type { DocumentSketch, SketchedPage } from '../../../src/core/survey/document-sketch.js';
import { commonPattern } from '../../../src/core/survey/group-names.js';
import { joinedGroups } from '../../../src/core/survey/joined-groups.js';
import { groupPages } from '../../../src/core/survey/page-groups.js';

/** A page that has the frame of its site, what its template makes, and a few places of its own. */
function pageOf(path: string, template: number, own = 0, marks: string[] = []): SketchedPage {
  const frame = Array.from({ length: 20 }, (_, index) => index);
  const made = Array.from({ length: 15 }, (_, index) => 1000 * template + index);
  const alone = Array.from({ length: own }, (_, index) => 1e6 + path.length * 1000 + index);
  return {
    url: `http://a.test${path}`,
    sketch: {
      ...noSketch,
      full: [...frame, ...made, ...alone].sort((a, b) => a - b),
      frame: [...frame, ...made.slice(0, 5)],
      marks,
    },
  };
}

describe('groupPages', () => {
  it('finds the pages of one template, whatever frame all pages share', () => {
    const groups = groupPages([
      pageOf('/', 1),
      pageOf('/journal/', 2),
      pageOf('/journal/rain', 3),
      pageOf('/journal/sewing-a-tail', 3, 4),
      pageOf('/makers/', 2),
      pageOf('/makers/oda', 4, 1),
      pageOf('/makers/tomas', 4),
    ]);
    expect(Object.fromEntries(groups)).toEqual({
      'http://a.test/': '/',
      'http://a.test/journal/': '/*/',
      'http://a.test/makers/': '/*/',
      'http://a.test/journal/rain': '/journal/*',
      'http://a.test/journal/sewing-a-tail': '/journal/*',
      'http://a.test/makers/oda': '/makers/*',
      'http://a.test/makers/tomas': '/makers/*',
    });
  });

  it('tells pages of one folder apart by their documents, and gives each group a name of its own', () => {
    const groups = groupPages([
      pageOf('/p/1', 1),
      pageOf('/p/2', 2),
      pageOf('/p/3', 1),
      pageOf('/p/4', 2),
    ]);
    const names = [1, 2, 3, 4].map((page) => groups.get(`http://a.test/p/${page}`));
    expect(names).toEqual([
      'pages like /p/1',
      'pages like /p/2',
      'pages like /p/1',
      'pages like /p/2',
    ]);
  });

  it('keeps posts together, whatever stands between their paragraphs', () => {
    // Each has blocks of its own, twice as many as its template makes.
    const groups = groupPages([
      pageOf('/2026/calm', 1, 40),
      pageOf('/2026/gusts-and-gales', 1, 45),
      pageOf('/2026/rain', 1, 60),
      pageOf('/about', 2),
    ]);
    expect([...groups.values()]).toEqual(['/2026/*', '/2026/*', '/2026/*', '/about']);
  });

  it('names a group by a class of its bodies where addresses do not tell it from others', () => {
    const post = ['blog', 'single-post'];
    const groups = groupPages([
      pageOf('/rain', 1, 0, post),
      pageOf('/calm', 1, 0, post),
      pageOf('/shop', 2, 0, ['blog', 'page']),
      pageOf('/tickets', 2, 0, ['blog', 'page']),
      pageOf('/x', 3, 0, ['blog']),
    ]);
    expect(Object.fromEntries(groups)).toMatchObject({
      'http://a.test/rain': 'pages with class single-post',
      'http://a.test/shop': 'pages with class page',
      'http://a.test/x': '/x',
    });
  });

  it('names a group by its nearest own breadcrumb, or by its heading, where no class tells it', () => {
    const page = (path: string, template: number, own: Partial<DocumentSketch>) => {
      const { url, sketch } = pageOf(path, template);
      return { url, sketch: { ...sketch, ...own } };
    };
    const groups = groupPages([
      page('/p-1', 1, { trail: ['Home', 'Programme'], heading: 'Rain' }),
      page('/p-2', 1, { trail: ['Home', 'Programme', 'Sunday'], heading: 'Calm' }),
      page('/p-3', 2, { trail: ['Home'], heading: 'A maker' }),
      page('/p-4', 2, { trail: ['Home'], heading: 'A maker' }),
      page('/p-5', 3, { trail: ['Home'] }),
      page('/p-6', 3, {}),
    ]);
    expect(Object.fromEntries(groups)).toEqual({
      'http://a.test/p-1': 'pages under Programme',
      'http://a.test/p-2': 'pages under Programme',
      'http://a.test/p-3': 'pages headed A maker',
      'http://a.test/p-4': 'pages headed A maker',
      'http://a.test/p-5': 'pages like /p-5',
      'http://a.test/p-6': 'pages like /p-5',
    });
  });

  it('gives the names that it gave before when pages are added elsewhere', () => {
    const old = [pageOf('/p/1', 1), pageOf('/p/2', 1), pageOf('/q/1', 2), pageOf('/q/2', 2)];
    const before = groupPages(old);
    const after = groupPages([pageOf('/', 4), ...old, pageOf('/q/3', 2), pageOf('/r/1', 5)]);
    for (const [url, name] of before) expect(after.get(url)).toBe(name);
  });

  it('keeps the pages of a folder together that have one skeleton, whatever their texts are made of', () => {
    const page = (path: string, template: number, skeleton: number[], own = 90) => {
      const { url, sketch } = pageOf(path, template, own);
      return { url, sketch: { ...sketch, skeleton } };
    };
    const groups = groupPages([
      page('/', 1, [1, 2, 3, 4, 5, 6]),
      page('/download', 2, [1, 2, 3, 4, 5, 6]),
      page('/manual/winches', 3, [1, 2, 3, 4, 5, 6]),
      page('/manual/kites', 4, [1, 2, 3, 4, 5, 6, 7]),
      page('/manual/your-account', 5, [8, 9]),
      page('/news/index.html', 6, [1, 2, 3], 0),
      page('/manual/index.html', 6, [1, 2, 3], 0),
    ]);
    expect(Object.fromEntries(groups)).toEqual({
      'http://a.test/': '/',
      'http://a.test/download': '/download',
      'http://a.test/manual/winches': '/manual/*',
      'http://a.test/manual/kites': '/manual/*',
      'http://a.test/manual/your-account': '/manual/your-account',
      'http://a.test/news/index.html': '/*/index.html',
      'http://a.test/manual/index.html': '/*/index.html',
    });
  });

  it('joins pages at the top of a site only by a large skeleton, where their template calls itself the same', () => {
    const page = (path: string, template: number, skeleton: number[], marks: string[] = []) => {
      const { url, sketch } = pageOf(path, template, 90, marks);
      return { url, sketch: { ...sketch, skeleton } };
    };
    const large = Array.from({ length: 30 }, (_, at) => at);
    const groups = groupPages([
      page('/', 1, large),
      page('/buttons.html', 2, large),
      page('/cards.html', 3, large.slice(1)),
      page('/sign-in-here.html', 4, large.slice(6)),
      page('/tent.html', 5, large, ['campsite']),
      page('/a-small-one.html', 6, large.slice(0, 15)),
      page('/one-as-small-as-that.html', 7, large.slice(0, 15)),
    ]);
    const joined = [...groups].filter(
      ([, name]) => name === groups.get('http://a.test/cards.html'),
    );
    expect(joined.map(([url]) => url)).toEqual([
      'http://a.test/buttons.html',
      'http://a.test/cards.html',
    ]);
    expect(new Set(groups.values()).size).toBe(6);
  });

  it('joins groups of any size', () => {
    const { sketch } = pageOf('/', 1);
    const page = (at: number) => ({
      url: `http://a.test/manual/${at}`,
      sketch: { ...sketch, skeleton: [1, 2] },
    });
    const many = Array.from({ length: 150_000 }, (_, at) => page(at));
    expect(joinedGroups([[page(-1)], many]).map(({ length }) => length)).toEqual([150_001]);
  });

  it('reads sketches of older surveys', () => {
    expect(readSketch('[1,2]')).toEqual({ ...noSketch, full: [1, 2] });
    const sketch = { full: [1], frame: [1], marks: ['a'] };
    expect(readSketch(JSON.stringify(sketch))).toEqual({ ...noSketch, ...sketch });
  });

  it('lets a person name groups, and leaves pages that were not seen alone', () => {
    const named = [{ name: 'articles', pages: ['/journal/*'] }];
    const unseen = { url: 'http://a.test/gone', sketch: noSketch };
    const other = { url: 'http://a.test/lost', sketch: noSketch };
    const groups = groupPages([pageOf('/journal/rain', 1), unseen, other], named);
    expect([...groups.values()]).toEqual(['articles', '/gone', '/lost']);
  });

  it('compares sketches that were cut by what both can say', () => {
    const whole = Array.from({ length: 400 }, (_, index) => index * 3);
    const more = whole.filter((_, index) => index % 20 !== 0);
    const cut = (hashes: number[]) => ({
      ...noSketch,
      full: hashes.slice(0, sketchSize),
    });
    const groups = groupPages([
      { url: 'http://a.test/a', sketch: cut(whole) },
      { url: 'http://a.test/b', sketch: cut(more) },
    ]);
    expect(new Set(groups.values())).toEqual(new Set(['/*']));
  });
});

describe('commonPattern', () => {
  it.each([
    [['/a/1', '/a/2'], '/a/*'],
    [['/a/1/x', '/a/2/x'], '/a/*/x'],
    [['/list?page=1', '/list?page=2'], '/list?page=*'],
    [['/?p=1', '/?p=2'], '/?p=*'],
    [['/list?tag=red&page=1', '/list?tag=red&page=2'], '/list?tag=red&page=*'],
    [['/?p=1', '/?m=2'], '/?*'],
    [['/a', '/a/b'], '/*'],
    [['/a/b', '/a/b/c'], '/a/*'],
    [['/one'], '/one'],
  ])('%j is %s', (paths, pattern) => {
    expect(commonPattern(paths.map((path) => `http://a.test${path}`))).toBe(pattern);
  });
});
