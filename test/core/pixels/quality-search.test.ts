import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { qualityTolerance, searchQuality } from '../../../src/core/pixels/quality-search.js';

const range = { least: 40, most: 90 };

/** An encoder whose dissimilarity falls evenly, from `start` at quality 40. */
function encoder(start: number, fall: number) {
  const tried: number[] = [];
  const similarityAt = (quality: number) => 1 - start * Math.exp(-fall * (quality - 40));
  return {
    tried,
    similarityAt,
    tryOne: (quality: number) => {
      tried.push(quality);
      return Promise.resolve({ quality, similarity: similarityAt(quality) });
    },
  };
}

describe('searchQuality', () => {
  it('finds the lowest quality that is enough, nearly, in at most four encodes', async () => {
    let tries = 0;
    let searches = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.double({ min: 0.005, max: 0.2, noNaN: true }),
        fc.double({ min: 0.015, max: 0.06, noNaN: true }),
        fc.double({ min: 0.9, max: 0.999, noNaN: true }),
        async (start, fall, threshold) => {
          const { tried, similarityAt, tryOne } = encoder(start, fall);
          const { quality, similarity } = await searchQuality(threshold, range, tryOne);
          tries += tried.length;
          searches++;
          expect(tried.length).toBeLessThanOrEqual(4);
          expect(new Set(tried).size).toBe(tried.length);
          expect(Math.min(...tried)).toBeGreaterThanOrEqual(range.least);
          expect(Math.max(...tried)).toBeLessThanOrEqual(range.most);
          if (similarityAt(range.most) < threshold) expect(quality).toBe(range.most);
          else {
            expect(similarity).toBeGreaterThanOrEqual(threshold);
            const lower = quality - qualityTolerance - 1;
            if (lower >= range.least) expect(similarityAt(lower)).toBeLessThan(threshold);
          }
        },
      ),
      { seed: 7, numRuns: 500 },
    );
    expect(tries / searches).toBeLessThan(3);
  });

  it('does not leave its range, whatever the picture', async () => {
    const { tryOne } = encoder(0.5, 0.001);
    expect(await searchQuality(0.99, range, tryOne)).toMatchObject({ quality: 90 });
    const easy = encoder(0.0001, 0.02);
    expect(await searchQuality(0.99, range, easy.tryOne)).toMatchObject({ quality: 40 });
  });
});
