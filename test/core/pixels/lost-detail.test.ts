import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { largerBlocks } from '../../../src/core/pixels/colours.js';
import type { BlockMeans } from '../../../src/core/pixels/colours.js';
import { lostDetail } from '../../../src/core/pixels/lost-detail.js';

const side = fc.integer({ min: 1, max: 24 });

function blocks(across: number, down: number, value: (at: number) => number): BlockMeans {
  return {
    across,
    down,
    values: Float32Array.from({ length: across * down }, (_, at) => value(at)),
  };
}

const random = fc.tuple(side, side).chain(([across, down]) =>
  fc
    .array(fc.integer({ min: -120, max: 120 }), {
      minLength: across * down,
      maxLength: across * down,
    })
    .map((values) => blocks(across, down, (at) => values[at]!)),
);

describe('lostDetail', () => {
  it('is nothing for the same picture, and for one that only gained detail', () => {
    fc.assert(
      fc.property(random, fc.integer({ min: -120, max: 120 }), (detailed, tone) => {
        const flat = blocks(detailed.across, detailed.down, () => tone);
        expect(lostDetail(detailed, detailed)).toBe(0);
        expect(lostDetail(flat, detailed)).toBeCloseTo(0, 6);
      }),
    );
  });

  it('grows with what is lost of the difference to the surroundings, and is less than 1', () => {
    fc.assert(
      fc.property(random, (detailed) => {
        const { across, down, values } = detailed;
        const lost = [0.8, 0.5, 0].map((part) =>
          lostDetail(
            detailed,
            blocks(across, down, (at) => part * values[at]!),
          ),
        );
        expect(lost).toEqual(lost.toSorted((one, other) => one - other));
        expect(lost[2]).toBeLessThan(1);
      }),
    );
  });

  it('is the loss of the one block that had a colour of its own', () => {
    // In the middle the surroundings weigh the block itself by the square of 0.27, its weight in each direction.
    const [across, down, tone] = [41, 41, 100];
    const dotted = blocks(across, down, (at) => (at === 20 * 41 + 20 ? tone : 0));
    const own = tone * (1 - 0.2707 ** 2);
    const found = lostDetail(
      dotted,
      blocks(across, down, () => 0),
    );
    expect(found).toBeGreaterThan((own / (255 + own)) * (1 / (across * down)) ** (1 / 4) * 0.999);
    expect(found).toBeLessThan((own / (255 + own)) * (1 / (across * down)) ** (1 / 4) * 1.01);
  });
});

describe('largerBlocks', () => {
  it('keeps the mean of a picture of whole blocks, and the tone of an even one', () => {
    fc.assert(
      fc.property(
        side,
        side,
        fc.infiniteStream(fc.integer({ min: -99, max: 99 })),
        (w, h, stream) => {
          const some = blocks(2 * w, 2 * h, () => stream.next().value as number);
          const mean = ({ values }: BlockMeans) =>
            values.reduce((sum, value) => sum + value, 0) / values.length;
          expect(mean(largerBlocks(some))).toBeCloseTo(mean(some), 3);
          const even = largerBlocks(blocks(w, h, () => 7));
          expect([even.across, even.down]).toEqual([Math.ceil(w / 2), Math.ceil(h / 2)]);
          expect(even.values.every((value) => value === 7)).toBe(true);
        },
      ),
    );
  });
});
