import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { viewsOfAudience } from '../../../src/core/visitors/audience.js';

const device = (width: number, height: number, density: number, visits: number) => ({
  width,
  height,
  density,
  visits,
  touch: null,
});

describe('viewsOfAudience', () => {
  it('joins screens that are nearly equal, and takes the one that most have', () => {
    const views = viewsOfAudience(
      [device(393, 852, 3, 300), device(390, 844, 3, 500), device(1366, 768, 1, 200)],
      4,
    );
    expect(views).toEqual([
      { name: 'phone-390', width: 390, height: 844, density: 3, touch: true, share: 0.8 },
      { name: 'laptop-1366', width: 1366, height: 768, density: 1, touch: false, share: 0.2 },
    ]);
  });

  it('makes no more views than are wanted, and joins what costs the least first', () => {
    const views = viewsOfAudience(
      [
        device(360, 740, 3, 400),
        device(430, 932, 3, 350),
        device(1366, 768, 1, 200),
        device(1440, 900, 2, 30),
        device(1920, 1080, 1, 20),
      ],
      3,
    );
    expect(views.map(({ name }) => name)).toEqual(['phone-360', 'phone-430', 'laptop-1366']);
    expect(views[2]!.share).toBeCloseTo(0.25);
  });

  it('counts every visit once, whatever the screens', () => {
    const screens = fc.array(
      fc.record({
        width: fc.integer({ min: 100, max: 10_000 }),
        height: fc.integer({ min: 100, max: 10_000 }),
        density: fc.constantFrom(1, 1.5, 2, 2.625, 3),
        visits: fc.integer({ min: 1, max: 1_000_000 }),
        touch: fc.constantFrom(true, false, null),
      }),
      { minLength: 1, maxLength: 30 },
    );
    fc.assert(
      fc.property(screens, fc.integer({ min: 1, max: 8 }), (devices, max) => {
        const views = viewsOfAudience(devices, max);
        expect(views.length).toBeGreaterThan(0);
        expect(views.length).toBeLessThanOrEqual(max);
        expect(views.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
        expect(new Set(views.map(({ name }) => name)).size).toBe(views.length);
        const real = new Set(devices.map(({ width, height }) => `${width} ${height}`));
        expect(views.every(({ width, height }) => real.has(`${width} ${height}`))).toBe(true);
      }),
    );
  });

  it('is nothing where nobody came', () => {
    expect(viewsOfAudience([device(390, 844, 3, 0)], 4)).toEqual([]);
  });
});
