import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fewTiles, manyTiles, sampleOf } from '../../src/images/sample.js';

/** A picture whose pixels say where they are: column and row, each modulo 251. */
function coordinates(width: number, height: number) {
  const bytes = new Uint8Array(width * height * 3);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      bytes[at++] = x % 251;
      bytes[at++] = y % 251;
      bytes[at++] = 7;
    }
  return { width, height, channels: 3, bytes };
}

describe('sampleOf', () => {
  it('puts whole tiles of the picture together, from its corners inwards', () => {
    const sample = sampleOf(coordinates(1_900, 1_250), fewTiles)!;
    expect([sample.width, sample.height]).toEqual([512, 384]);
    const at = (x: number, y: number) => [...sample.bytes.subarray((y * 512 + x) * 3).slice(0, 2)];
    const more = sampleOf(coordinates(2_400, 1_600), manyTiles)!;
    expect([more.width, more.height]).toEqual([1_024, 768]);
    expect(at(0, 0)).toEqual([0, 0]);
    expect(at(511, 383)).toEqual([1_899 % 251, 1_249 % 251]);
    // Inside a tile, neighbours are neighbours.
    const [x, y] = at(130, 140) as [number, number];
    expect(at(131, 141)).toEqual([(x + 1) % 251, (y + 1) % 251]);
  });

  it('is at most a third of the picture, or there is none', () => {
    let sampled = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 2_000 }),
        fc.integer({ min: 1, max: 900 }),
        fc.constantFrom(fewTiles, manyTiles),
        (width, height, tiles) => {
          const sample = sampleOf(coordinates(width, height), tiles);
          if (!sample) return;
          sampled++;
          expect(sample.width * sample.height * 3).toBeLessThanOrEqual(width * height);
          expect(sample.bytes).toHaveLength(sample.width * sample.height * 3);
          expect(sample.bytes.filter((_, at) => at % 3 === 2).every((byte) => byte === 7)).toBe(
            true,
          );
        },
      ),
      { seed: 3, numRuns: 60 },
    );
    expect(sampled).toBeGreaterThan(10);
  });
});
