import type { ImageFile, ImageResponse } from '../image-file.js';
import type { Placement } from '../placement.js';
import type { CurvePiece } from '../slot-curve.js';

/** Something worth saying of an image file that is not counted in its waste. */
export interface Finding {
  readonly id: string;
  readonly message: string;
}

/** A placement with its slot curve, where it has one. */
export interface PlacedImage extends Placement {
  readonly slotCurve: readonly CurvePiece[] | null;
}

/** All that a check may look at. */
export interface ImageCase {
  readonly file: ImageFile;
  readonly responses: readonly ImageResponse[];
  readonly placements: readonly PlacedImage[];
}

/** Looks at one image file; says what it found, or nothing. */
export type ImageCheck = (image: ImageCase) => Finding | undefined;
