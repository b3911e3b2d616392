import type { RawPixels } from '../core/pixels/colours.js';

/** The side of a tile in pixels: a multiple of all that formats divide a picture into (64 in AVIF, 16 in JPEG and WebP). */
const tile = 128;

/** The most tiles of a sample. */
export interface Tiles {
  readonly across: number;
  readonly down: number;
}

/** About 200,000 pixels, which need nearly the quality that the whole needs. */
export const fewTiles: Tiles = { across: 4, down: 3 };
/** About 800,000 pixels, which have the bytes for each pixel that the whole has. */
export const manyTiles: Tiles = { across: 8, down: 6 };

/** A picture that has not this many times the pixels of its sample is encoded as it is. */
const leastRatio = 3;

/**
 * Tiles from all over a picture, put together.
 *
 * @returns `null` for a picture that is not much larger than its sample would be
 */
export function sampleOf(
  { width, height, channels, bytes }: RawPixels,
  most: Tiles,
): RawPixels | null {
  const across = Math.min(most.across, Math.floor(width / tile));
  const down = Math.min(most.down, Math.floor(height / tile));
  const size = { width: across * tile, height: down * tile };
  const pixels = size.width * size.height;
  if (pixels === 0 || width * height < leastRatio * pixels) return null;
  const sample = new Uint8Array(pixels * channels);
  for (let y = 0, to = 0; y < size.height; y++) {
    const line = beginOf(Math.floor(y / tile), down, height) + (y % tile);
    for (let column = 0; column < across; column++, to += tile * channels) {
      const from = (line * width + beginOf(column, across, width)) * channels;
      sample.set(bytes.subarray(from, from + tile * channels), to);
    }
  }
  return { ...size, channels, bytes: sample };
}

/** Where a tile begins when so many are spread evenly over a side. */
function beginOf(index: number, count: number, side: number): number {
  const room = side - tile;
  return count === 1 ? Math.floor(room / 2) : Math.round((index * room) / (count - 1));
}
