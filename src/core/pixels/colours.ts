import { lightnessOf } from './lightness.js';
import type { Luma } from './luma.js';

/** Sides of the blocks that colours are averaged over, in pixels. */
export const colourBlock = 4;

/** The mean of one axis of colour in each block, row by row. */
export interface BlockMeans {
  readonly across: number;
  readonly down: number;
  readonly values: Float32Array;
}

/** What is compared of a picture: how light it is pixel by pixel, its colours block by block, as the eye sees them. */
export interface Colours {
  /** L* of CIE 1976, from 0 to 255. */
  readonly lightness: Luma;
  /** Red against green (Cr of ITU-R BT.601). */
  readonly red: BlockMeans;
  /** Blue against yellow (Cb). */
  readonly blue: BlockMeans;
}

/** Pixels as they come from a decoder: grey, grey and alpha, RGB, or RGB and alpha, a byte each. */
export interface RawPixels {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly bytes: Uint8Array;
}

/** The colour behind transparent pixels: mid-grey, so that both black and white differ from it. */
const behind = 128;

/** Luma by the weights of ITU-R BT.601, as lossy formats carry it. */
export function lumaOf(pixels: RawPixels): Luma {
  const { width, height, channels, bytes } = overGrey(pixels);
  const values = new Uint8Array(width * height);
  if (channels < 3) values.set(bytes);
  else
    for (let at = 0, from = 0; at < values.length; at++, from += 3)
      values[at] = lumaAt(bytes, from);
  return { width, height, values };
}

/** A picture by its lightness and the opponent colours of ITU-R BT.601 (Cr and Cb), these averaged over blocks. */
export function coloursOf(pixels: RawPixels): Colours {
  const { width, height, channels, bytes } = overGrey(pixels);
  const across = Math.ceil(width / colourBlock);
  const down = Math.ceil(height / colourBlock);
  const red = new Float32Array(across * down);
  const blue = new Float32Array(across * down);
  const values = new Uint8Array(width * height);
  const found = {
    lightness: { width, height, values },
    red: { across, down, values: red },
    blue: { across, down, values: blue },
  };
  if (channels < 3) {
    for (let at = 0; at < values.length; at++)
      values[at] = lightnessOf(bytes[at]!, bytes[at]!, bytes[at]!);
    return found;
  }
  for (let y = 0, at = 0, from = 0; y < height; y++) {
    const end = at + width;
    for (let block = Math.floor(y / colourBlock) * across; at < end; block++) {
      let reds = 0;
      let greens = 0;
      let blues = 0;
      for (const stop = Math.min(end, at + colourBlock); at < stop; at++, from += 3) {
        const r = bytes[from]!;
        const g = bytes[from + 1]!;
        const b = bytes[from + 2]!;
        values[at] = lightnessOf(r, g, b);
        reds += r;
        greens += g;
        blues += b;
      }
      const lumas = 0.299 * reds + 0.587 * greens + 0.114 * blues;
      red[block]! += reds - lumas;
      blue[block]! += blues - lumas;
    }
  }
  for (let row = 0, block = 0; row < down; row++)
    for (let column = 0; column < across; column++, block++) {
      const wide = Math.min(colourBlock, width - column * colourBlock);
      const high = Math.min(colourBlock, height - row * colourBlock);
      red[block]! *= 0.713 / (wide * high);
      blue[block]! *= 0.564 / (wide * high);
    }
  return found;
}

/** The ideal is compared with one file after the other: its blocks are joined once. */
const joined = new WeakMap<BlockMeans, BlockMeans>();

/** The means of blocks of twice the side; the last ones are of what there is. */
export function largerBlocks(blocks: BlockMeans): BlockMeans {
  const known = joined.get(blocks) ?? joinedAnew(blocks);
  joined.set(blocks, known);
  return known;
}

function joinedAnew({ across, down, values }: BlockMeans): BlockMeans {
  const [wide, high] = [Math.ceil(across / 2), Math.ceil(down / 2)];
  const means = new Float32Array(wide * high);
  for (let row = 0, to = 0; row < high; row++)
    for (let column = 0; column < wide; column++, to++) {
      const at = 2 * row * across + 2 * column;
      const right = 2 * column + 1 < across ? 1 : 0;
      const below = 2 * row + 1 < down ? across : 0;
      means[to] =
        (values[at]! + values[at + right]! + values[at + below]! + values[at + below + right]!) / 4;
    }
  return { across: wide, down: high, values: means };
}

/** 0.299, 0.587 and 0.114, in 256ths: whole numbers are several times as fast. */
function lumaAt(bytes: Uint8Array, from: number): number {
  return (bytes[from]! * 77 + bytes[from + 1]! * 150 + bytes[from + 2]! * 29 + 128) >> 8;
}

/** Pixels without transparency, over mid-grey. */
function overGrey(pixels: RawPixels): RawPixels {
  const { channels, bytes } = pixels;
  if (channels === 1 || channels === 3) return pixels;
  const opaque = new Uint8Array((bytes.length / channels) * (channels - 1));
  for (let from = 0, to = 0; from < bytes.length; from += channels) {
    const alpha = bytes[from + channels - 1]!;
    for (let at = from; at < from + channels - 1; at++, to++)
      opaque[to] = (bytes[at]! * alpha + behind * (255 - alpha) + 127) / 255;
  }
  return { ...pixels, channels: channels - 1, bytes: opaque };
}
