import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readColourProfile, shareOutsideSrgb } from '../../../src/core/pixels/colour-profile.js';

/** A profile that comes with the codec, as it stands in a file. */
async function profileOf(name: 'p3' | 'srgb') {
  const file = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
    .withIccProfile(name)
    .png()
    .toBuffer();
  return readColourProfile((await sharp(file).metadata()).icc!)!;
}

describe('colour profiles', () => {
  it('lead to the colours that their makers say', async () => {
    const { toSrgb, curves } = await profileOf('p3');
    // Display P3 to sRGB, both linear, as CSS Color Module Level 4 has it (section 20).
    const known = [
      [1.2249, -0.2247, 0],
      [-0.042, 1.0419, 0],
      [-0.0197, -0.0786, 1.0979],
    ];
    known.forEach((row, at) =>
      row.forEach((value, column) => expect(toSrgb[at]![column]).toBeCloseTo(value, 2)),
    );
    expect(curves[0]![0]).toBe(0);
    expect(curves[0]![255]).toBeCloseTo(1, 3);
    expect(curves[0]![128]).toBeCloseTo(0.2158, 2);
  });

  it('tell how many pixels would lose their colour', async () => {
    const profile = await profileOf('p3');
    const share = (pixels: number[]) => shareOutsideSrgb(Uint8Array.from(pixels), 3, profile);
    expect(share([255, 0, 0])).toBe(1);
    expect(share([128, 128, 128])).toBe(0);
    expect(share([255, 255, 255, 0, 0, 0, 0, 255, 0, 120, 110, 100])).toBe(0.25);
    const plain = await profileOf('srgb');
    expect(shareOutsideSrgb(Uint8Array.from([255, 0, 0, 0, 255, 0, 0, 0, 255]), 3, plain)).toBe(0);
  });

  it('are no profiles when they are broken', () => {
    for (const length of [0, 4, 127, 200])
      expect(readColourProfile(new Uint8Array(length))).toBeUndefined();
    const endless = new Uint8Array(200).fill(255);
    endless.set(Buffer.from('RGB '), 16);
    expect(readColourProfile(endless)).toBeUndefined();
  });
});
