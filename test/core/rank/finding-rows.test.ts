import { describe, expect, it } from 'vitest';
import { findingRows } from '../../../src/core/rank/finding-rows.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import type { SiteFinding } from '../../../src/core/findings/site/index.js';
import { plainSketch, surveyOf } from '../../support/survey-facts.js';

const site: readonly SiteFinding[] = [
  ...[100, 900].map((perVisit, at): SiteFinding => ({
    ...{ id: 'uncompressed-text', data: {}, url: `http://a.test/${at}.css`, group: null },
    ...{ thirdParty: false, pages: ['http://a.test/0', `http://a.test/${at}`], perVisit },
    ...{ part: '', count: 1, timePerVisit: null },
  })),
  {
    ...{ id: 'blocking-script', data: {}, url: 'http://a.test/x.js', group: null },
    ...{ thirdParty: false, pages: ['http://a.test/0'], perVisit: null },
    ...{ part: '', count: 1, timePerVisit: 240 },
  },
];

describe('findings by kind', () => {
  const { images } = rankImages(
    surveyOf([
      { ...plainSketch, readable: false },
      { ...plainSketch, bytes: 900_000 },
    ]),
    defaultPolicy,
  );

  it('sum up what has them, images and other files alike', () => {
    const rows = findingRows(images, site);
    const uncompressed = rows.find(({ id }) => id === 'uncompressed-text')!;
    expect(uncompressed).toMatchObject({
      ...{ about: 'file', doer: 'server', count: 2, pages: 2, bytesPerVisit: 1_000 },
    });
    expect(rows.find(({ id }) => id === 'blocking-script')).toMatchObject({
      ...{ bytesPerVisit: null, timePerVisit: 240 },
    });
    for (const row of rows.filter(({ about }) => about === 'image')) {
      const having = images.filter(({ findings }) => findings.some(({ id }) => id === row.id));
      expect(row.count).toBe(having.length);
      expect(row.bytesPerVisit).toBeCloseTo(
        having.reduce((sum, { perVisit }) => sum + perVisit.wasteBytes, 0),
      );
    }
    expect(rows.map(({ id }) => id)).toContain('unreadable');
    expect(findingRows([], [])).toEqual([]);
  });

  it.each([
    ['waste', ({ bytesPerVisit }: { bytesPerVisit: number | null }) => bytesPerVisit ?? -1],
    ['pages', ({ pages }: { pages: number }) => pages],
    ['files', ({ count }: { count: number }) => count],
  ] as const)('are sorted by %s, the most first', (sort, value) => {
    const values = findingRows(images, site, sort).map(value);
    expect(values).toEqual(values.toSorted((a, b) => b - a));
  });
});
