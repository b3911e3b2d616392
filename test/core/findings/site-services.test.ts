import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contains, intersection } from '../../../src/core/findings/site/text-usage.js';
import type { Resource } from '../../../src/core/survey/resource.js';
import { findingsOf } from './made-site.js';

const script = (more: Partial<Resource>): Partial<Resource> => ({
  ...{ type: 'script', url: 'https://t.test/tag.js', thirdParty: true, contentHash: 'tag' },
  ...more,
});
const unusedTag = { scriptUse: [{ contentHash: 'tag', ranges: [0, 950] }] };
const facts = { contentHash: 'tag', units: 1_000, gzip: 500, brotli: 500, bytes: 1_000 };

describe('findings on third parties', () => {
  const found = (files: readonly Partial<Resource>[], load = {}) =>
    findingsOf([{ files, load }, {}], [facts]);

  it('tell what one costs, in the visits that are sent it', () => {
    const times = {
      scriptTimes: [{ url: 'https://t.test/tag.js', function: '', time: 40, forced: 0 }],
    };
    const [service] = found([script({ transferBytes: 900, wireBytes: 800 })], times);
    expect(service).toMatchObject({
      ...{ id: 'third-party-service', perVisit: 450, timePerVisit: 20, thirdParty: true },
      data: { domain: 't.test', requests: 1, mainThreadTime: 20, pages: 1, allPages: 2 },
    });
  });

  it('ask after one that comes and does nothing, and not after one that asks for more', () => {
    const idle = (files: readonly Partial<Resource>[], load: object) =>
      found(files, load).some(({ id }) => id === 'idle-service');
    const small = script({ transferBytes: 900, wireBytes: 500 });
    expect(idle([small], unusedTag)).toBe(true);
    expect(idle([small], { scriptUse: [{ contentHash: 'tag', ranges: [0, 890] }] })).toBe(false);
    expect(idle([small], {})).toBe(false);
    const beacon = { url: 'https://t.test/count', type: 'other', thirdParty: true } as const;
    expect(idle([small, beacon], unusedTag)).toBe(false);
    const elsewhere = {
      url: 'https://u.test/count',
      type: 'other',
      initiatedBy: 'https://t.test/tag.js',
    } as const;
    expect(idle([small, { ...elsewhere, thirdParty: true }], unusedTag)).toBe(false);
  });

  it('ask after one that fails, unless no third party answers at all', () => {
    const ids = (...statuses: number[]) =>
      found(
        statuses.map((status, at) =>
          script({ status, url: `https://t${at}.test/x.js`, contentHash: null }),
        ),
      )
        .filter(({ id }) => id === 'idle-service')
        .map(({ url }) => url);
    expect(ids(404)).toEqual(['https://t0.test/x.js']);
    expect(ids(0, 0)).toEqual([]);
    expect(ids(0, 200)).toEqual(['https://t0.test/x.js']);
  });
});

describe('what pages use of texts', () => {
  const css = { contentHash: 'css', units: 1_000, rules: [0, 100, 100, 400, 400, 1_000] };
  const used = (...ranges: number[]) => ({ load: { styleUse: [{ contentHash: 'css', ranges }] } });
  const sheet = { contentHash: 'css', wireBytes: 20_000 };

  it('is what any of them uses: a rule that one needs is not unused', () => {
    const found = findingsOf(
      [
        { ...used(0, 100), group: '/a/*', files: [sheet] },
        { ...used(100, 400), group: '/b/*', files: [sheet] },
      ],
      [css],
    ).find(({ id }) => id === 'unused-style')!;
    expect(found.data).toMatchObject({
      ...{ share: 0.6, unusedBytes: 12_000 },
      groups: [
        { group: '/a/*', share: 0.9 },
        { group: '/b/*', share: 0.7 },
      ],
    });
    expect(found.perVisit).toBe(12_000);
  });

  it('is not known where the browser counted nothing', () => {
    const ids = findingsOf([{ files: [sheet] }], [css]).map(({ id }) => id);
    expect(ids).not.toContain('unused-style');
  });

  it('tells files that only some page groups need', () => {
    const found = findingsOf(
      [
        { ...used(0, 1_000), group: '/a/*', files: [sheet] },
        { ...used(), group: '/b/*', files: [sheet] },
      ],
      [css],
    ).find(({ id }) => id === 'needed-by-few')!;
    expect(found.data).toMatchObject({ needed: ['/a/*'], idle: ['/b/*'], idlePages: 1 });
    expect(found.perVisit).toBe(10_000);
  });

  it('tells scripts that write into the document only where the call was run', () => {
    const writer = { type: 'script', url: 'https://a.test/w.js', contentHash: 'w' } as const;
    const ids = (ranges: number[]) =>
      findingsOf(
        [{ files: [writer], load: { scriptUse: [{ contentHash: 'w', ranges }] } }],
        [{ contentHash: 'w', units: 100, writes: [50], gzip: 100_000, brotli: 100_000 }],
      ).map(({ id }) => id);
    expect(ids([])).toEqual(['document-write']);
    expect(ids([40, 60])).not.toContain('document-write');
  });

  it('tells fonts by what was made of them', () => {
    const font = {
      type: 'font',
      url: 'https://a.test/k.woff',
      contentHash: 'f',
      wireBytes: 50_000,
    } as const;
    const subsets = { KTe: 12_000 };
    const found = (woff2: number | null, characters: string) =>
      findingsOf(
        [{ files: [font], load: { fontUse: [{ url: font.url, characters }] } }],
        [{ contentHash: 'f', font: { format: 'WOFF', woff2, subsets } }],
      ).map(({ id, perVisit }) => [id, perVisit]);
    expect(found(40_000, 'KTe')).toEqual([
      ['font-characters', 28_000],
      ['old-font', 10_000],
    ]);
    expect(found(16_000, 'KTe')).toEqual([['old-font', 34_000]]);
    expect(found(null, 'other')).toEqual([['old-font', null]]);
  });

  const ranges = fc
    .uniqueArray(fc.nat(60), { maxLength: 20 })
    .map((numbers) => numbers.toSorted((a, b) => a - b))
    .map((numbers) => numbers.slice(0, numbers.length - (numbers.length % 2)));

  it('is in both of two lists of ranges exactly where it is in each', () => {
    fc.assert(
      fc.property(ranges, ranges, (some, others) => {
        const both = intersection(some, others);
        for (let at = 0; at <= 61; at++)
          expect(contains(both, at)).toBe(contains(some, at) && contains(others, at));
      }),
    );
  });
});
