import { describe, expect, it } from 'vitest';
import { commonPattern, groupPages, sketchSize } from '../../../src/core/survey/page-groups.js';
import type { SketchedPage } from '../../../src/core/survey/page-groups.js';

/** A page that has the frame of its site, what its template makes, and a few places of its own. */
function pageOf(path: string, template: number, own = 0): SketchedPage {
  const frame = Array.from({ length: 20 }, (_, index) => index);
  const made = Array.from({ length: 15 }, (_, index) => 1000 * template + index);
  const alone = Array.from({ length: own }, (_, index) => 1e6 + path.length * 1000 + index);
  return {
    url: `http://a.test${path}`,
    sketch: [...frame, ...made, ...alone].sort((a, b) => a - b),
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
    expect(names).toEqual(['/p/*', '/p/* (2)', '/p/*', '/p/* (2)']);
  });

  it('lets a person name groups, and leaves pages that were not seen alone', () => {
    const named = [{ name: 'articles', pages: ['/journal/*'] }];
    const unseen = { url: 'http://a.test/gone', sketch: [] };
    const other = { url: 'http://a.test/lost', sketch: [] };
    const groups = groupPages([pageOf('/journal/rain', 1), unseen, other], named);
    expect([...groups.values()]).toEqual(['articles', '/gone', '/lost']);
  });

  it('compares sketches that were cut by what both can say', () => {
    const whole = Array.from({ length: 400 }, (_, index) => index * 3);
    const more = whole.filter((_, index) => index % 20 !== 0);
    const cut = (hashes: number[]) => hashes.slice(0, sketchSize);
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
    [['/list?page=1', '/list?page=2'], '/list?*'],
    [['/a', '/a/b'], '/*'],
    [['/a/b', '/a/b/c'], '/a/*'],
    [['/one'], '/one'],
  ])('%j is %s', (paths, pattern) => {
    expect(commonPattern(paths.map((path) => `http://a.test${path}`))).toBe(pattern);
  });
});
