import type { Size } from '../base/size.js';

/** One or both sides that a style sheet, or markup, fixes; `null` follows from the file's ratio. */
export interface DrawnBox {
  readonly width: number | null;
  readonly height: number | null;
}

/** The values of the CSS property `object-fit`; `background-size` uses the same words. */
export type ObjectFit = 'fill' | 'contain' | 'cover' | 'none' | 'scale-down';

/** How a picture is sized in its slot. */
export interface Sizing {
  readonly slot: Size;
  readonly fit: ObjectFit;
  readonly drawn?: DrawnBox | null;
  readonly naturalDensity?: number;
}

/**
 * The size, in CSS pixels, of the picture that is drawn in a slot, parts that are cut off included.
 *
 * Source: CSS Images Module Level 3, section 5.5 (`object-fit`); CSS Backgrounds and Borders Module
 * Level 3, section 3.9 (`background-size`).
 *
 * @param intrinsic pixels of the file, or `undefined` for a file without pixels
 */
export function renderedSize(
  { slot, fit, drawn, naturalDensity = 1 }: Sizing,
  intrinsic: Size | undefined,
): Size {
  const natural = intrinsic && {
    width: intrinsic.width / naturalDensity,
    height: intrinsic.height / naturalDensity,
  };
  if (drawn) return boxSize(drawn, natural) ?? slot;
  if (fit === 'fill' || !natural || natural.width <= 0 || natural.height <= 0) return slot;
  const factor = fitFactor(slot, fit, natural);
  return { width: natural.width * factor, height: natural.height * factor };
}

/** A box with the side that is left open filled in by the ratio of the picture. */
function boxSize({ width, height }: DrawnBox, natural: Size | undefined): Size | undefined {
  if (width !== null && height !== null) return { width, height };
  if (!natural) return undefined;
  if (width !== null) return { width, height: (width * natural.height) / natural.width };
  if (height !== null) return { width: (height * natural.width) / natural.height, height };
  return natural;
}

function fitFactor(slot: Size, fit: Exclude<ObjectFit, 'fill'>, natural: Size): number {
  const across = slot.width / natural.width;
  const down = slot.height / natural.height;
  switch (fit) {
    case 'contain':
      return Math.min(across, down);
    case 'cover':
      return Math.max(across, down);
    case 'none':
      return 1;
    case 'scale-down':
      return Math.min(across, down, 1);
  }
}
