import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addCauses, causes, noWaste, splitWaste, stepsAt } from '../../../src/core/waste/waste.js';

const count = fc.integer({ min: 0, max: 10_000_000 });
const steps = fc.record({
  metadata: count,
  pixelRatio: fc.double({ min: 0.0001, max: 1, noNaN: true }),
  sameFormat: count,
  best: count,
  text: fc.boolean(),
});
const plain = { metadata: 0, pixelRatio: 1, text: false };

describe('splitWaste', () => {
  it('books the metadata first, then the pixels, then quality, then the format', () => {
    const walk = { metadata: 100, pixelRatio: 0.5, sameFormat: 300, best: 200, text: false };
    expect(splitWaste(1100, 1, true, walk)).toEqual({
      sentBytes: 1100,
      neededBytes: 200,
      wasteBytes: 900,
      causes: { ...noWaste(), metadata: 100, pixels: 500, quality: 200, format: 100 },
    });
  });

  it('books what compressing saves of a text under the wire', () => {
    const split = splitWaste(1000, 1, true, { ...plain, sameFormat: 300, best: 300, text: true });
    expect(split.causes).toEqual({ ...noWaste(), wire: 700 });
  });

  it('leaves a file that is right as it is alone', () => {
    expect(splitWaste(1000, 1, true, undefined)).toMatchObject({
      neededBytes: 1000,
      wasteBytes: 0,
    });
  });

  it('counts what is never shown as wasted whole, and under nothing else', () => {
    const split = splitWaste(1000, 2, false, { ...plain, sameFormat: 300, best: 200 });
    expect(split.neededBytes).toBe(0);
    expect(split.causes).toEqual({ ...noWaste(), neverShown: 2000 });
  });

  it('counts a second address once more', () => {
    const split = splitWaste(1000, 3, true, { ...plain, sameFormat: 1000, best: 1000 });
    expect(split.causes).toEqual({ ...noWaste(), duplicate: 2000 });
    expect(split.neededBytes).toBe(1000);
  });

  it('finds no waste in a file that no encode makes smaller', () => {
    const split = splitWaste(1000, 1, true, { ...plain, sameFormat: 1500, best: 1200 });
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

describe('stepsAt', () => {
  const encoded = { metadata: 7, exponent: 0.5, sameFormat: 800, best: 400 };

  it('are those of the encode at its own need', () => {
    const steps = stepsAt(encoded, 16_000, 4_000, 4_000);
    expect(steps).toEqual({
      metadata: 7,
      pixelRatio: 0.5,
      sameFormat: 800,
      best: 400,
      text: false,
    });
  });

  it('follow the pixels by the exponent below it', () => {
    const steps = stepsAt(encoded, 16_000, 4_000, 1_000);
    expect(steps).toMatchObject({ pixelRatio: 0.25, sameFormat: 400, best: 200 });
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
