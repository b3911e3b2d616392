import { describe, expect, it } from 'vitest';
import { Frontier } from '../../src/crawl/frontier.js';
import { isThirdParty } from '../../src/crawl/third-party.js';

function drain(frontier: Frontier): string[] {
  const urls: string[] = [];
  for (let due = frontier.next(); due; due = frontier.next()) urls.push(`${due.depth} ${due.url}`);
  return urls;
}

describe('Frontier', () => {
  it('hands each page out once, nearest to a start first', () => {
    const frontier = new Frontier(['http://a.test/', 'http://a.test/#top'], 10);
    frontier.add(['http://a.test/x', 'http://a.test/x#y', 'http://a.test/'], 1);
    frontier.add(['http://a.test/z'], 2);
    expect(drain(frontier)).toEqual(['0 http://a.test/', '1 http://a.test/x', '2 http://a.test/z']);
  });

  it('stays on the hosts of its starts, ports included', () => {
    const frontier = new Frontier(['http://a.test/'], 10);
    frontier.add(
      ['http://b.test/', 'http://www.a.test/', 'http://a.test:8080/', 'mailto:x@a.test'],
      1,
    );
    expect(drain(frontier)).toEqual(['0 http://a.test/']);
    expect(frontier.inScope('http://a.test/q')).toBe(true);
    expect(frontier.inScope('http://b.test/q')).toBe(false);
  });

  it('says what it passed over, and why', () => {
    const frontier = new Frontier(['http://a.test/'], 2);
    frontier.add(['http://a.test/a.JPG', 'http://a.test/b', 'http://a.test/c'], 1);
    expect(drain(frontier)).toHaveLength(2);
    expect(frontier.waiting).toBe(0);
    expect(frontier.skipped).toEqual([
      { url: 'http://a.test/a.JPG', reason: 'a .JPG file, not a page' },
      { url: 'http://a.test/c', reason: 'more than the 2 pages allowed' },
    ]);
  });

  it('does not visit a page again under the address it led to', () => {
    const frontier = new Frontier(['http://a.test/'], 10);
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
