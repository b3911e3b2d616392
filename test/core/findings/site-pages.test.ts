import { describe, expect, it } from 'vitest';
import { findingWords } from '../../../src/output/words/findings.js';
import { madePages } from './made-pages.js';
import { findingsOf } from './made-site.js';

describe('findings on pages', () => {
  it.each(madePages)('tell %s', (_, page, ids) => {
    expect(findingsOf([page]).map(({ id }) => id)).toEqual(ids);
  });

  it('put the same fault of a group together, and weigh it by visits', () => {
    const redirected = { group: '/p/*', load: { redirects: ['https://a.test/old'] } };
    const found = findingsOf([
      redirected,
      redirected,
      { load: { redirects: ['https://a.test/x'] } },
      {},
    ]);
    expect(
      found.map(({ id, group, pages, count, timePerVisit }) => [
        id,
        group,
        pages.length,
        count,
        timePerVisit,
      ]),
    ).toEqual([
      ['page-redirect', '/p/*', 2, 2, 60],
      ['page-redirect', null, 1, 1, 30],
    ]);
  });

  it('tell of a file with a short lifetime whether an earlier survey had the same', () => {
    const files = [{ headers: {}, contentHash: 'x' }];
    const sameIn = (hash: string) => {
      const hashes = new Map([['https://a.test/site.css', hash]]);
      const [found] = findingsOf([{ files }], [], [], { label: 'spring', hashes });
      return found;
    };
    expect(sameIn('y')!.data).toMatchObject({ sameIn: null });
    expect(findingWords(sameIn('x')!)).toBe(
      'has no lifetime in caches, though it was the same in spring: a second visit loads its 10 kB again, because it has no validator (etag, last-modified) either',
    );
  });

  it('are silent where the policy mutes them', () => {
    const page = { group: '/p/*', load: { elements: 2_000 } };
    const mute = (rule: object) =>
      findingsOf([page], [], [{ finding: 'large-dom', reason: 'x', ...rule }]);
    expect(mute({ group: '/q/*' })).toHaveLength(1);
    expect(mute({ group: '/p/*' })).toEqual([]);
    expect(mute({ address: '/1/' })).toHaveLength(1);
    expect(mute({ address: '/0/' })).toEqual([]);
    expect(mute({})).toEqual([]);
    expect(mute({ finding: 'late-style' })).toHaveLength(1);
  });
});
