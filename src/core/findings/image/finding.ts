import type { ImageFile, ImageResponse } from '../../survey/image-file.js';
import type { Placement } from '../../slots/placement.js';
import type { Policy } from '../../policy/policy.js';
import type { CurvePiece } from '../../slots/slot-curve.js';
import type { View } from '../../visitors/view.js';

/** Something worth saying of an image file that is not counted in its waste. */
export interface Finding {
  readonly id: string;
  readonly message: string;
}

/** A placement, and how its slot follows the viewport. */
export interface PlacedImage extends Placement {
  /** The slot curve; `null` where it was not swept. */
  readonly curve: () => readonly CurvePiece[] | null;
}

/** All that a check may look at. */
export interface ImageCase {
  readonly file: ImageFile;
  readonly responses: readonly ImageResponse[];
  readonly placements: readonly PlacedImage[];
  readonly policy: Policy;
  readonly views: ReadonlyMap<string, View>;
}

/** Looks at one image file; says what it found, or nothing. */
export type ImageCheck = (image: ImageCase) => Finding | undefined;
