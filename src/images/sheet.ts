import potpack from 'potpack';
import sharp from 'sharp';
import type { OverlayOptions } from 'sharp';
import type { Region } from '../core/base/region.js';
import type { Size } from '../core/base/size.js';

/** Where each picture lies in a sheet, in CSS pixels, in the order in which they were given. */
export interface SheetLayout extends Size {
  readonly places: readonly Region[];
}

/** Between pictures, so that none shows through at the edge of another where a browser rounds. */
const gap = 2;
const maxSide = 2_048;

/**
 * Packs boxes into one sheet, as tightly as the packer can.
 *
 * @throws RangeError when they make a larger sheet than browsers like.
 */
export function packSheet(sizes: readonly Size[]): SheetLayout {
  const boxes = sizes.map(({ width, height }, at) => ({
    ...{ w: width + gap, h: height + gap, x: 0, y: 0, at },
  }));
  // The packer puts the boxes in another order, and says in them where they lie.
  const { w, h } = potpack([...boxes]);
  if (Math.max(w, h) > maxSide) throw new RangeError('too many for one sprite');
  const places = boxes.map(({ x, y }, at) => ({ left: x, top: y, ...sizes[at]! }));
  return { width: w - gap, height: h - gap, places };
}

/** The files of a sheet at one density: one that every browser reads, and a smaller one. */
export interface SheetFiles {
  readonly png: Buffer;
  readonly webp: Buffer;
}

/** Resolution at which vectors are read before they are reduced, in dots an inch: four pixels to one. */
const vectorResolution = 288;

/**
 * Draws pictures into a sheet.
 *
 * @param bodies in the order of the layout's places
 * @throws Error when one of them cannot be decoded.
 */
export async function drawSheet(
  bodies: readonly Buffer[],
  { places, ...size }: SheetLayout,
  density: number,
): Promise<SheetFiles> {
  const parts = await Promise.all(
    bodies.map(async (body, at): Promise<OverlayOptions> => {
      const { left, top, width, height } = places[at]!;
      const input = await sharp(body, { density: vectorResolution })
        .rotate()
        .resize(width * density, height * density, { fit: 'fill', kernel: 'lanczos3' })
        .png()
        .toBuffer();
      return { input, left: left * density, top: top * density };
    }),
  );
  const sheet = await sharp({
    create: {
      width: size.width * density,
      height: size.height * density,
      channels: 4,
      background: { r: 0, g: 0, b: 0, alpha: 0 },
    },
  })
    .composite(parts)
    .png()
    .toBuffer();
  return {
    png: await sharp(sheet).png({ compressionLevel: 9, effort: 10 }).toBuffer(),
    webp: await sharp(sheet).webp({ lossless: true, effort: 6 }).toBuffer(),
  };
}
