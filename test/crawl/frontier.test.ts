import { describe, expect, it } from 'vitest';
import { Frontier } from '../../src/crawl/frontier.js';
import type { Scope } from '../../src/crawl/scope.js';
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
    const frontier = begun(['http://a.test/', 'http://a.test/'], { pages: 10 });
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
    expect(frontier.leftOut).toEqual([
      {
        url: 'http://a.test/c',
        reason: 'more than 2 pages; 1 of 2 with the pattern http://a.test/* were surveyed',
      },
    ]);
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

  it('lets a site make up only so many addresses that are no pages', () => {
    const frontier = begun(['http://a.test/'], { pages: 2 });
    frontier.next();
    let loads = 0;
    for (let at = 0; at < 1_000; at++) frontier.add([`http://a.test/${at}`], 1);
    for (; frontier.next(); loads++) frontier.forgo();
    expect(loads).toBe(41);
    expect(frontier.leftOut[0]?.reason).toMatch(
      /^more than 40 addresses were loaded that are no pages of their own; 41 of 1000 /,
    );
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
      { found, reached: [], skipped: [], due: found.slice(1), visited: 1, documents: [] },
    );
    second.add(['http://a.test/', 'http://a.test/b', 'http://a.test/d'], 2);
    expect(drain(second)).toEqual(['1 http://a.test/b', '1 http://a.test/c']);
    expect(second.leftOut.map(({ url }) => url)).toEqual(['http://a.test/d']);
  });

  it('lets patterns of addresses take turns, so that a calendar does not use up the budget', () => {
    const frontier = begun(['http://a.test/'], { pages: 13 });
    frontier.next();
    const days = Array.from({ length: 50 }, (_, day) => `http://a.test/calendar?d=${day}`);
    const posts = ['a', 'b', 'c', 'd', 'e'].map((name) => `http://a.test/journal/${name}`);
    const pages = ['about', 'contact', 'shop'].map((name) => `http://a.test/${name}`);
    frontier.add([...days, ...posts, ...pages], 1);
    const taken = drain(frontier).map((text) => new URL(text.split(' ')[1]!));
    const of = (path: string) => taken.filter(({ pathname }) => pathname.startsWith(path)).length;
    expect([of('/calendar'), of('/journal/'), taken.length]).toEqual([5, 4, 12]);
    for (const url of pages) expect(taken.map(String)).toContain(url);
    expect(frontier.leftOut).toHaveLength(46);
    expect(frontier.leftOut[0]!.reason).toMatch(/; 5 of 50 with the pattern .*\?d were surveyed$/);
  });

  it('does not count pages of other templates against a pattern', () => {
    const frontier = begun(['http://a.test/'], { pages: 100 });
    frontier.next();
    const many = (path: string) =>
      Array.from({ length: 9 }, (_, at) => `http://a.test${path}${at}`);
    frontier.add([...many('/tag/'), ...many('/')], 1);
    const first = Array.from({ length: 8 }, () => frontier.next()!.url);
    expect(first.filter((url) => url.includes('/tag/'))).toHaveLength(4);
    // All under /tag/ are of one template, the others are of four.
    frontier.learnGroups(new Map(first.map((url) => [url, url.includes('/tag/') ? 'tag' : url])));
    const next = Array.from({ length: 3 }, () => frontier.next()!.url);
    expect(next.filter((url) => url.includes('/tag/'))).toEqual([]);
  });

  it('visits the most visited of the named pages first', () => {
    const frontier = new Frontier(['http://a.test/'], { pages: 2 });
    frontier.begin([
      { url: 'http://a.test/a', visits: 10 },
      { url: 'http://a.test/b', visits: null },
      { url: 'http://a.test/c', visits: 900 },
    ]);
    expect(drain(frontier)).toEqual(['0 http://a.test/c', '0 http://a.test/a']);
  });

  it('knows addresses of one document, and says which was first', () => {
    const frontier = begun(['http://a.test/'], { pages: 10 });
    const due = (path: string, depth = 1) => ({ url: `http://a.test${path}`, depth, visits: null });
    expect(frontier.twinOf(due('/', 0), '0123')).toBeUndefined();
    expect(frontier.twinOf(due('/index.html'), '0123')).toBe('http://a.test/');
    expect(frontier.twinOf(due('/start'), '0123')).toBe('http://a.test/');
    expect(frontier.twinOf(due('/named', 0), '0123')).toBeUndefined();
    expect(frontier.twinOf(due('/other'), '4567')).toBeUndefined();
    expect(frontier.twinOf(due('/nothing'), '')).toBeUndefined();
    // Of what says little only kin are believed.
    expect(frontier.twinOf(due('/shop/'), '?89')).toBeUndefined();
    expect(frontier.twinOf(due('/notice'), '?89')).toBeUndefined();
    expect(frontier.twinOf(due('/shop/?day=2'), '?89')).toBeUndefined();
    expect(frontier.twinOf(due('/Shop/index.php'), '?89')).toBe('http://a.test/shop/');
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
