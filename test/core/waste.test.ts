import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addCauses, causes, noWaste, splitWaste } from '../../src/core/waste.js';

const count = fc.integer({ min: 0, max: 10_000_000 });
const steps = fc.record({
  pixelRatio: fc.double({ min: 0.0001, max: 1, noNaN: true }),
  sameFormat: count,
  best: count,
});

describe('splitWaste', () => {
  it('books the pixels first, then quality, then the format', () => {
    const split = splitWaste(1000, 1, true, { pixelRatio: 0.4, sameFormat: 300, best: 200 });
    expect(split).toEqual({
      sentBytes: 1000,
      neededBytes: 200,
      wasteBytes: 800,
      causes: { neverShown: 0, duplicate: 0, pixels: 600, quality: 100, format: 100 },
    });
  });

  it('counts what is never shown as wasted whole, and under nothing else', () => {
    const split = splitWaste(1000, 2, false, { pixelRatio: 0.4, sameFormat: 300, best: 200 });
    expect(split.neededBytes).toBe(0);
    expect(split.causes).toEqual({ ...noWaste(), neverShown: 2000 });
  });

  it('counts a second address once more', () => {
    const split = splitWaste(1000, 3, true, { pixelRatio: 1, sameFormat: 1000, best: 1000 });
    expect(split.causes).toEqual({ ...noWaste(), duplicate: 2000 });
    expect(split.neededBytes).toBe(1000);
  });

  it('finds no waste in a file that no encode makes smaller', () => {
    const split = splitWaste(1000, 1, true, { pixelRatio: 1, sameFormat: 1500, best: 1200 });
    expect(split).toMatchObject({ neededBytes: 1000, wasteBytes: 0, causes: noWaste() });
  });

  it('adds up, and never goes below nothing', () => {
    fc.assert(
      fc.property(
        count,
        fc.integer({ min: 1, max: 5 }),
        fc.boolean(),
        steps,
        (bytes, n, shown, s) => {
          const {
            sentBytes,
            neededBytes,
            wasteBytes,
            causes: split,
          } = splitWaste(bytes, n, shown, s);
          const parts = causes.map((cause) => split[cause]);
          expect(sentBytes).toBe(bytes * n);
          expect(parts.reduce((sum, part) => sum + part, 0)).toBe(wasteBytes);
          expect(neededBytes + wasteBytes).toBe(sentBytes);
          expect(parts.every((part) => part >= 0 && Number.isInteger(part))).toBe(true);
          if (shown) expect(neededBytes).toBe(Math.min(bytes, s.best));
        },
      ),
    );
  });
});

describe('addCauses', () => {
  it('sums cause by cause', () => {
    const sum = addCauses([
      { ...noWaste(), pixels: 3 },
      { ...noWaste(), pixels: 4, format: 1 },
    ]);
    expect(sum).toEqual({ ...noWaste(), pixels: 7, format: 1 });
  });
});
