import { describe, expect, it } from 'vitest';
import { chosenWidth, offeredWidths, parseSrcset } from '../../../src/core/slots/srcset.js';

describe('parseSrcset', () => {
  it.each([
    ['/a.jpg 400w, /b.jpg 800w', ['/a.jpg', '/b.jpg'], [400, 800]],
    ['  /a.jpg   400w ,/b.jpg 2x', ['/a.jpg', '/b.jpg'], [400]],
    ['/a.jpg, /b.jpg 2x', ['/a.jpg', '/b.jpg'], []],
    ['/a,b.jpg 800w,/a,b.jpg 400w', ['/a,b.jpg', '/a,b.jpg'], [400, 800]],
    ['data:image/png;base64,xx== 1x, /b.jpg 2x', ['data:image/png;base64,xx==', '/b.jpg'], []],
    [',, ,/a.jpg 10w,,', ['/a.jpg'], [10]],
    ['', [], []],
    [' , ', [], []],
  ])('%j', (text, urls, widths) => {
    const candidates = parseSrcset(text);
    expect(candidates.map(({ url }) => url)).toEqual(urls);
    expect(offeredWidths(candidates)).toEqual(widths);
  });

  it.each([
    ['/i/w_800,h_600/a.jpg 2x', [['/i/w_800,h_600/a.jpg', 2]]],
    [
      '/a.jpg, /b.jpg 1.5x, /c.jpg .5x',
      [
        ['/a.jpg', 1],
        ['/b.jpg', 1.5],
        ['/c.jpg', 0.5],
      ],
    ],
    ['/a.jpg 400w', [['/a.jpg', null]]],
    ['/a.jpg 0x', [['/a.jpg', 1]]],
  ])('%j has these densities', (text, densities) => {
    expect(parseSrcset(text).map(({ url, density }) => [url, density])).toEqual(densities);
  });

  it('reads what is absurd in no time', () => {
    const candidates = parseSrcset('/a.jpg 1w, '.repeat(50_000));
    expect(candidates.length).toBeLessThanOrEqual(10_000);
    expect(parseSrcset(','.repeat(200_000))).toEqual([]);
    const commasWithin = `a${','.repeat(99_000)}b`;
    expect(parseSrcset(commasWithin)).toEqual([{ url: commasWithin, width: null, density: 1 }]);
  });
});

describe('chosenWidth', () => {
  it('is the least that is enough, or else the largest', () => {
    expect([300, 400, 401, 900].map((needed) => chosenWidth([400, 800], needed))).toEqual([
      400, 400, 800, 800,
    ]);
    expect(chosenWidth([], 100)).toBeUndefined();
  });
});
