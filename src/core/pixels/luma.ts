import type { Size } from '../base/size.js';

/** The brightness of a picture, pixel by pixel: its luma, or its lightness. */
export interface Luma extends Size {
  /** 0 to 255, row by row; `width × height` values. */
  readonly values: Uint8Array;
}

/** The ideal is compared with one file after the other: it is halved once. */
const halves = new WeakMap<Luma, Luma>();

/** A picture of half the width and height, each pixel the average of four. */
export function halved(whole: Luma): Luma {
  const known = halves.get(whole) ?? halvedAnew(whole);
  halves.set(whole, known);
  return known;
}

function halvedAnew({ width, height, values }: Luma): Luma {
  const [across, down] = [width >> 1, height >> 1];
  const half = new Uint8Array(across * down);
  for (let y = 0, to = 0; y < down; y++)
    for (let x = 0, from = 2 * y * width; x < across; x++, from += 2)
      half[to++] =
        (values[from]! +
          values[from + 1]! +
          values[from + width]! +
          values[from + width + 1]! +
          2) >>
        2;
  return { width: across, height: down, values: half };
}
