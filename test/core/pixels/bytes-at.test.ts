import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bytesAt, tellsBytesAt } from '../../../src/core/pixels/bytes-at.js';

const similarity = fc.double({ min: 0.9, max: 0.9999, noNaN: true });

/** An encoder whose bytes fall as a power of the dissimilarity. */
const encoder = (bytes: number, fall: number) => (alike: number) => ({
  bytes: bytes * (1 - alike) ** -fall,
  similarity: alike,
});

describe('bytesAt', () => {
  it('finds the bytes between two encodes, and near them', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e3, max: 1e6, noNaN: true }),
        fc.double({ min: 0.15, max: 1, noNaN: true }),
        fc.tuple(similarity, similarity).filter(([one, other]) => Math.abs(one - other) > 1e-4),
        similarity,
        (bytes, fall, [one, other], wanted) => {
          const encode = encoder(bytes, fall);
          const encodes = [encode(one), encode(other)];
          expect(bytesAt(encodes, wanted) / encode(wanted).bytes).toBeCloseTo(1, 2);
        },
      ),
    );
  });

  it('lies between what is enough and what is not, however steep the way to it', () => {
    // JPEG packs again what it has packed: beyond the quality of then, nothing is lost any more.
    const encodes = [
      { bytes: 8_000, similarity: 0.937 },
      { bytes: 21_000, similarity: 0.983 },
      { bytes: 31_000, similarity: 0.9994 },
    ];
    expect(bytesAt(encodes, 0.991)).toBeGreaterThan(21_000);
    expect(bytesAt(encodes, 0.991)).toBeLessThan(31_000);
  });

  it('needs more bytes for more similarity, where one encode is all that is known', () => {
    const bytes = fc.integer({ min: 100_000, max: 1e6 });
    fc.assert(
      fc.property(bytes, similarity, similarity, (bytes, one, wanted) => {
        const encodes = [{ bytes, similarity: one }];
        expect(bytesAt(encodes, one)).toBe(bytes);
        const more = bytesAt(encodes, wanted + (1 - wanted) / 10);
        expect(more).toBeGreaterThan(bytesAt(encodes, wanted));
      }),
    );
  });

  it('is told by one encode that is near, or by two that it lies between, and not by one that is far', () => {
    expect(tellsBytesAt([{ bytes: 1_000, similarity: 0.992 }], 0.991)).toBe(true);
    expect(tellsBytesAt([{ bytes: 1_000, similarity: 0.98 }], 0.991)).toBe(false);
    const [better, worse] = [0.9928, 0.989].map((similarity) => ({ bytes: 1_000, similarity }));
    expect(tellsBytesAt([better!], 0.991)).toBe(false);
    expect(tellsBytesAt([worse!], 0.991)).toBe(false);
    expect(tellsBytesAt([better!, worse!], 0.991)).toBe(true);
    expect(tellsBytesAt([better!, { bytes: 1_000, similarity: 0.98 }], 0.991)).toBe(false);
    expect(tellsBytesAt([], 0.991)).toBe(false);
    expect(() => bytesAt([], 0.991)).toThrow(RangeError);
  });
});
