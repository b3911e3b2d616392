import type { Size } from '../../base/size.js';
import type { Policy } from '../../policy/policy.js';
import type { ElementMarkup } from '../../slots/element-markup.js';
import type { ElementPath } from '../../slots/element-path.js';
import type { Placement } from '../../slots/placement.js';
import type { CurvePiece } from '../../slots/slot-curve.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { ResponseFacts } from '../../survey/survey-tables.js';
import type { View } from '../../visitors/view.js';
import type { FindingData, FindingKind } from '../finding.js';

/** A placement, and how its slot follows the viewport. */
export interface PlacedImage extends Placement {
  /** Its place in the table of placements. */
  readonly row: number;
  /** The slot curve; `null` where it was not swept. */
  readonly curve: readonly CurvePiece[] | null;
  /** The element as it stands in the page; `null` where none was kept. */
  readonly element: ElementMarkup | null;
  /** Where it stands in its document; empty where that was not kept. */
  readonly path: ElementPath;
}

/** What a check can use. */
export interface ImageCase {
  readonly file: ImageFile;
  /** The file that it should be; left out where none was made. */
  readonly encoded?: Encoded | undefined;
  /** What its addresses answered, each answer that is different once. */
  readonly answers: readonly ResponseFacts[];
  /** What its address answered on the page, and in the view, of a placement. */
  readonly answerTo: (placement: PlacedImage) => ResponseFacts | undefined;
  readonly placements: readonly PlacedImage[];
  /** The largest file of the same picture that the survey knows; `null` where that is this one. */
  readonly larger?: { readonly url: string; readonly intrinsic: Size } | null;
  readonly policy: Policy;
  readonly views: ReadonlyMap<string, View>;
  /** Whether any view has an element in its first screen, with whatever file it chose there. */
  readonly isInSight: (placement: Placement) => boolean;
}

/** A kind of finding about one image file. */
export interface ImageFinding<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  /** Looks at one image file; answers with the evidence, or with nothing. */
  check(image: ImageCase): Data | undefined;
}

/** Declares a kind of finding about image files. */
export function imageFinding<const Id extends string, Data extends FindingData>(
  kind: ImageFinding<Id, Data>,
): ImageFinding<Id, Data> {
  return kind;
}
