import { describe, expect, it } from 'vitest';
import { Frontier } from '../../src/crawl/frontier.js';
import type { Scope } from '../../src/crawl/frontier.js';
import { isThirdParty } from '../../src/crawl/third-party.js';

function begun(starts: readonly string[], scope: Scope): Frontier {
  const frontier = new Frontier([], scope);
  frontier.begin(starts.map((url) => ({ url, visits: null })));
  return frontier;
}

function drain(frontier: Frontier): string[] {
  const urls: string[] = [];
  for (let due = frontier.next(); due; due = frontier.next()) urls.push(`${due.depth} ${due.url}`);
  return urls;
}

describe('Frontier', () => {
  it('hands each page out once, nearest to a start first', () => {
    const frontier = begun(['http://a.test/', 'http://a.test/#top'], { pages: 10 });
    frontier.add(['http://a.test/x', 'http://a.test/x#y', 'http://a.test/'], 1);
    frontier.add(['http://a.test/z'], 2);
    expect(drain(frontier)).toEqual(['0 http://a.test/', '1 http://a.test/x', '2 http://a.test/z']);
  });

  it('stays on the hosts of its starts, ports included', () => {
    const frontier = begun(['http://a.test/'], { pages: 10 });
    frontier.add(
      ['http://b.test/', 'http://www.a.test/', 'http://a.test:8080/', 'mailto:x@a.test'],
      1,
    );
    expect(drain(frontier)).toEqual(['0 http://a.test/']);
    expect(frontier.inScope('http://a.test/q')).toBe(true);
    expect(frontier.inScope('http://b.test/q')).toBe(false);
  });

  it('says what it skipped, and why', () => {
    const frontier = begun(['http://a.test/'], { pages: 2 });
    frontier.add(['http://a.test/a.JPG', 'http://a.test/b', 'http://a.test/c'], 1);
    expect(drain(frontier)).toHaveLength(2);
    expect(frontier.waiting).toBe(0);
    expect(frontier.takeFound().skipped).toEqual([
      { url: 'http://a.test/a.JPG', reason: 'a link to a .JPG file' },
    ]);
    expect(frontier.leftOut).toEqual([{ url: 'http://a.test/c', reason: 'more than 2 pages' }]);
  });

  it('keeps to its depth, its patterns and its rule for queries', () => {
    const frontier = begun(['http://a.test/'], {
      pages: 100,
      depth: 2,
      include: ['/journal/*', '/kites*'],
      exclude: ['*print*'],
      query: ['id'],
    });
    const links = [
      '/journal/one',
      '/journal/print/one',
      '/about',
      '/kites?id=1&s=9',
      '/kites?s=8&id=1',
    ];
    frontier.add(
      links.map((path) => `http://a.test${path}`),
      1,
    );
    frontier.add(['http://a.test/journal/deep'], 3);
    expect(drain(frontier)).toEqual([
      '0 http://a.test/',
      '1 http://a.test/journal/one',
      '1 http://a.test/kites?id=1',
    ]);
    expect(frontier.takeFound().skipped.map(({ reason }) => reason)).toEqual([
      'matches --exclude',
      'does not match --include',
      'more than 2 links from a start',
    ]);
  });

  it('gives the place of a page that turned out to be none to another', () => {
    const frontier = begun(['http://a.test/'], { pages: 1 });
    frontier.add(['http://a.test/b'], 1);
    expect(frontier.next()?.url).toBe('http://a.test/');
    expect(frontier.next()).toBeUndefined();
    frontier.forgo();
    expect(frontier.next()?.url).toBe('http://a.test/b');
  });

  it('tells what it found once, and goes on from what an earlier run left', () => {
    const first = begun(['http://a.test/'], { pages: 3 });
    first.next();
    first.add(['http://a.test/b', 'http://a.test/c'], 1);
    const found = first.takeFound().due;
    expect(found.map(({ url }) => url)).toEqual([
      'http://a.test/',
      'http://a.test/b',
      'http://a.test/c',
    ]);
    expect(first.takeFound()).toEqual({ due: [], skipped: [] });
    const second = new Frontier(
      ['http://a.test/'],
      { pages: 3 },
      { found, reached: [], skipped: [], due: found.slice(1), visited: 1 },
    );
    second.add(['http://a.test/', 'http://a.test/b', 'http://a.test/d'], 2);
    expect(drain(second)).toEqual(['1 http://a.test/b', '1 http://a.test/c']);
    expect(second.leftOut.map(({ url }) => url)).toEqual(['http://a.test/d']);
  });

  it('does not visit a page again under the address it led to', () => {
    const frontier = begun(['http://a.test/'], { pages: 10 });
    expect(frontier.reached('http://a.test/home')).toBe(true);
    expect(frontier.reached('http://a.test/home')).toBe(false);
    frontier.add(['http://a.test/home'], 1);
    expect(drain(frontier)).toEqual(['0 http://a.test/']);
  });
});

describe('isThirdParty', () => {
  it.each([
    ['http://img.brindlebay.test/a', 'http://brindlebay.test/', false],
    ['http://cdn.gullpost.test/a', 'http://brindlebay.test/', true],
    ['http://a.co.uk/x', 'http://b.co.uk/', true],
    ['http://127.0.0.1:81/x', 'http://127.0.0.1:80/', false],
    ['http://127.0.0.2/x', 'http://127.0.0.1/', true],
    ['data:image/png;base64,x', 'http://a.test/', false],
  ])('%s on %s: %s', (address, page, expected) => {
    expect(isThirdParty(address, page)).toBe(expected);
  });
});
