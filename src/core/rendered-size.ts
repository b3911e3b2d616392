import type { Size } from './size.js';

/** The values of the CSS property `object-fit`. */
export type ObjectFit = 'fill' | 'contain' | 'cover' | 'none' | 'scale-down';

/**
 * The size, in CSS pixels, of the picture that is drawn in a slot, parts that are cut off included.
 *
 * Source: CSS Images Module Level 3, section 5.5 ("Sizing Objects: the object-fit property").
 *
 * @param slot the content box of the element, in CSS pixels
 * @param intrinsic the natural size in CSS pixels, or `undefined` for a file without pixels
 */
export function renderedSize(slot: Size, fit: ObjectFit, intrinsic: Size | undefined): Size {
  if (fit === 'fill' || !intrinsic || intrinsic.width <= 0 || intrinsic.height <= 0) return slot;
  const factor = fitFactor(slot, fit, intrinsic);
  return { width: intrinsic.width * factor, height: intrinsic.height * factor };
}

function fitFactor(slot: Size, fit: Exclude<ObjectFit, 'fill'>, intrinsic: Size): number {
  const across = slot.width / intrinsic.width;
  const down = slot.height / intrinsic.height;
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
