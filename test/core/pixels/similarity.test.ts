import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coloursOf, lumaOf } from '../../../src/core/pixels/colours.js';
import type { Colours, RawPixels } from '../../../src/core/pixels/colours.js';
import { similarity } from '../../../src/core/pixels/similarity.js';
import { structuralSimilarity } from '../../../src/core/pixels/structural-similarity.js';

type Paint = (x: number, y: number) => readonly number[];

function pixels(width: number, height: number, paint: Paint): RawPixels {
  const rows = Array.from({ length: width * height }, (_, at) =>
    paint(at % width, Math.floor(at / width)),
  );
  return { width, height, channels: rows[0]!.length, bytes: Uint8Array.from(rows.flat()) };
}

const picture = (width: number, height: number, paint: Paint): Colours =>
  coloursOf(pixels(width, height, paint));

/** Soft shapes in colour, the same every time. */
const shapes: Paint = (x, y) => [
  128 + 60 * Math.sin(x / 9) * Math.cos(y / 15),
  128 + 50 * Math.sin((x + y) / 21),
  128 + 40 * Math.cos(x / 33),
];
const side = 192;
const plain = picture(side, side, shapes);

/** What a measure that knows luma alone says of two pictures. */
const byLuma = (one: Paint, other: Paint) =>
  structuralSimilarity(lumaOf(pixels(side, side, one)), lumaOf(pixels(side, side, other)));
const inSquare = (x: number, y: number) => x >= 64 && x < 96 && y >= 64 && y < 96;

/** Adds to red and takes from green what leaves the brightness as it is. */
const redder =
  (by: number, where: (x: number, y: number) => boolean): Paint =>
  (x, y) => {
    const [red = 0, green = 0, blue = 0] = shapes(x, y);
    return where(x, y) ? [red + by, green - (by * 77) / 150, blue] : [red, green, blue];
  };

describe('similarity', () => {
  it('is 1 for the same picture, of any size and any channels', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 70 }),
        fc.integer({ min: 1, max: 70 }),
        fc.integer({ min: 1, max: 4 }),
        (width, height, channels) => {
          const paint: Paint = (x, y) => [...shapes(x, y), 200].slice(-channels);
          expect(similarity(picture(width, height, paint), picture(width, height, paint))).toBe(1);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('sees a colour that luma alone does not see', () => {
    const other = redder(24, inSquare);
    expect(byLuma(shapes, other)).toBeGreaterThan(0.999);
    expect(similarity(plain, picture(side, side, other))).toBeLessThan(0.96);
  });

  it('sees that small things have lost their colour, along either axis', () => {
    const isSpot = (x: number, y: number) => x % 48 < 6 && y % 48 < 6;
    // What blue adds to the brightness is taken from green.
    const bluer: Paint = (x, y) => {
      const [red = 0, green = 0, blue = 0] = shapes(x, y);
      return isSpot(x, y) ? [red, green - (60 * 29) / 150, blue + 60] : [red, green, blue];
    };
    for (const spotted of [redder(40, isSpot), bluer]) {
      expect(byLuma(spotted, shapes)).toBeGreaterThan(0.999);
      expect(similarity(picture(side, side, spotted), plain)).toBeLessThan(0.98);
    }
  });

  it('minds detail lost in deep red at least half as much as in grey', () => {
    const stripe = (x: number) => 20 * Math.sign(Math.sin(x / 3));
    const lost = (paint: (by: number) => readonly number[]) => {
      const [ideal, flat] = [(x: number) => paint(stripe(x)), () => paint(0)].map((one) =>
        picture(side, side, one),
      );
      return 1 - similarity(ideal!, flat!);
    };
    const inGrey = lost((by) => [150 + by, 150 + by, 150 + by]);
    // By luma, these stripes are a third as strong.
    const inRed = lost((by) => [200 + by, 0, 0]);
    expect(inRed).toBeGreaterThan(inGrey / 2);
  });

  it('sees blotches of yellow in a smooth picture', () => {
    const isBlotch = (x: number, y: number) => x % 64 < 10 && y % 64 < 10;
    const blotched: Paint = (x, y) => {
      const [red = 0, green = 0, blue = 0] = shapes(x, y);
      return isBlotch(x, y) ? [red, green + (20 * 29) / 150, blue - 20] : [red, green, blue];
    };
    expect(byLuma(shapes, blotched)).toBeGreaterThan(0.999);
    expect(similarity(plain, picture(side, side, blotched))).toBeLessThan(0.98);
  });

  it('sees another brightness in pictures that are smaller than a window', () => {
    for (const [width, height] of [
      [1, 1],
      [3, 90],
      [14, 14],
    ] as const) {
      const [dark, bright] = [60, 90].map((grey) => picture(width, height, () => [grey]));
      expect(similarity(dark!, bright!)).toBeLessThan(0.5);
    }
  });

  it('minds damage in one place that an average over the picture hides', () => {
    const brighter: Paint = (x, y) => shapes(x, y).map((one) => one + (inSquare(x, y) ? 14 : 0));
    expect(byLuma(shapes, brighter)).toBeGreaterThan(0.985);
    expect(similarity(plain, picture(side, side, brighter))).toBeLessThan(0.9);
  });

  it('forgives noise where a picture is busy before noise where it is smooth', () => {
    const noise = (x: number, y: number) => ((x * 7919 + y * 104_729) % 13) - 6;
    const busy = (x: number, y: number) => ((x * 3571 + y * 22_307) % 97) - 48;
    const paint =
      (isBusy: boolean, isNoisy: boolean): Paint =>
      (x, y) =>
        shapes(x, y).map((one) => one + (isBusy ? busy(x, y) : 0) + (isNoisy ? noise(x, y) : 0));
    const found = (isBusy: boolean) =>
      similarity(
        picture(side, side, paint(isBusy, false)),
        picture(side, side, paint(isBusy, true)),
      );
    expect(found(true)).toBeGreaterThan(found(false));
  });

  it('minds damage nearly as much where the rest of the picture is a clear sky', () => {
    const busy = side / 2;
    const scene =
      (width: number, isDamaged: boolean): Paint =>
      (x, y) => {
        if (x >= busy || x >= width) return [120, 170, 220];
        return redder(isDamaged ? 3 : 0, () => true)(2 * x, 2 * y);
      };
    const found = [busy, side].map(
      (width) =>
        -Math.log(
          similarity(
            picture(width, side, scene(width, false)),
            picture(width, side, scene(width, true)),
          ),
        ),
    );
    // An average over twice the area would be 0.7 of it.
    expect(found[1]).toBeGreaterThan(0.75 * found[0]!);
    expect(found[1]).toBeLessThan(found[0]!);
  });

  it('falls as the damage grows', () => {
    const found = [4, 8, 16, 32].map((by) =>
      similarity(plain, picture(side, side, redder(by, inSquare))),
    );
    expect(found).toEqual(found.toSorted((a, b) => b - a));
  });
});

describe('coloursOf', () => {
  it('has the mean colour of each block, the last ones smaller', () => {
    const { red, blue } = picture(12, 9, (x) => (x < 8 ? [200, 100, 50] : [10, 20, 220]));
    expect([red.across, red.down]).toEqual([3, 3]);
    const [first, second] = [200 - 0.299 * 200 - 58.7 - 5.7, 220 - 2.99 - 11.74 - 0.114 * 220];
    for (const row of [0, 1, 2]) {
      expect(red.values[3 * row]).toBeCloseTo(0.713 * first, 3);
      expect(blue.values[3 * row + 2]).toBeCloseTo(0.564 * second, 3);
    }
  });

  it('puts what is transparent over grey', () => {
    expect(lumaOf(pixels(1, 1, () => [255, 255, 255, 0])).values).toEqual(Uint8Array.of(128));
    expect(lumaOf(pixels(1, 1, () => [0, 128])).values).toEqual(Uint8Array.of(64));
  });

  it('has no colours of a grey picture', () => {
    const { red, blue } = picture(20, 20, (x) => [x * 10]);
    expect([...red.values, ...blue.values].every((value) => value === 0)).toBe(true);
  });
});
