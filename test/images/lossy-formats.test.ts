import { describe, expect, it } from 'vitest';
import { wayToEncode } from '../../src/images/lossy-formats.js';

const size = { width: 800, height: 500 };
/** A draft of a picture of 800 × 500 pixels. */
const draftWith = (bitsPerPixel: number) => ({ bytes: (bitsPerPixel * 400_000) / 8 });

describe('wayToEncode', () => {
  it('takes less effort for much detail, and eight bits for little', () => {
    expect(wayToEncode(size, draftWith(2.5))).toEqual({ isQuick: true, hasEightBits: false });
    expect(wayToEncode(size, draftWith(1))).toEqual({ isQuick: false, hasEightBits: false });
    expect(wayToEncode(size, draftWith(0.2))).toEqual({ isQuick: false, hasEightBits: true });
  });

  it('takes less effort for many pixels, whatever is in them', () => {
    const large = { width: 2400, height: 1600 };
    expect(wayToEncode(large, { bytes: 100_000 }).isQuick).toBe(true);
    expect(wayToEncode({ width: 1600, height: 1200 }, { bytes: 100_000 }).isQuick).toBe(false);
  });
});
