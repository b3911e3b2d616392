import type { ElementMarkup } from './element-markup.js';
import type { ElementPath } from './element-path.js';
import type { DrawnBox, ObjectFit } from './rendered-size.js';
import type { Size } from '../base/size.js';
import type { CurvePiece } from './slot-curve.js';

/** The ways in which a page can show an image. */
export const placementKinds = [
  'img',
  'input',
  'poster',
  'svg-image',
  'object',
  'embed',
  'background',
  'border-image',
  'mask',
  'list-style',
  'content',
  'cursor',
] as const;
export type PlacementKind = (typeof placementKinds)[number];

/** The markup of an element about its image. */
export interface Markup {
  /** Alternative text: `null` when the attribute is missing, empty when it is given empty. */
  readonly alt: string | null;
  readonly srcset: string | null;
  readonly sizes: string | null;
  readonly fetchPriority: 'high' | 'low' | 'auto';
  readonly decoding: 'sync' | 'async' | 'auto';
  /**
   * Whether the page is laid out before the file arrives as it is afterwards: measured with the file held back; where that
   * could not be done, whether there are width and height, or `aspect-ratio`.
   */
  readonly dimensions: boolean;
  /** The attributes width and height in CSS pixels; `null` where one is missing, or is no whole number. */
  readonly declared: DrawnBox;
  /** Whether a border or padding is part of the box that its style sheet sizes (`box-sizing`). */
  readonly framed: boolean;
}

/** One image shown in one slot on one page, as seen in one view. */
export interface Placement {
  readonly page: string;
  readonly view: string;
  readonly kind: PlacementKind;
  /**
   * A CSS selector that finds the element again; `>>>` steps into a shadow root or a frame, and a
   * pseudo-element stands at the end.
   */
  readonly selector: string;
  /** The address that the browser chose. */
  readonly url: string;
  /** The image file behind the address, or `null` when it did not arrive. */
  readonly contentHash: string | null;
  /**
   * The box in CSS pixels that the image is shown in, transforms applied: the content box of an
   * element, the positioning area of a background. Of no size where the picture makes its own.
   */
  readonly slot: Size;
  readonly fit: ObjectFit;
  /** The box that the picture is fitted to, where that is not the slot (`background-size`). */
  readonly drawn: DrawnBox | null;
  /** Pixels of the file to one CSS pixel of its natural size (`2x`, `image-set()`). */
  readonly naturalDensity: number;
  /** Whether any part of it is in the first screen. */
  readonly aboveFold: boolean;
  /** Whether it waits to the side of the window, as the slides of a slider do. */
  readonly aside: boolean;
  /** Whether it is the largest contentful paint of its visit. */
  readonly largest: boolean;
  /** Whether it has a box that is not hidden. */
  readonly shown: boolean;
  readonly loading: 'lazy' | 'eager';
  /** When its file was requested; `null` if it was not, or its bytes are in the document. */
  readonly fetched: 'at-once' | 'on-scroll' | null;
  readonly markup: Markup | null;
}

/** What a visit found of a placement: it, and its element as it stands in the page. */
export interface FoundPlacement extends Omit<Placement, 'page' | 'view'> {
  /** `null` for what is no `<img>`, for one that is too long, and in surveys of older versions. */
  readonly element: ElementMarkup | null;
  readonly path: ElementPath;
}

/**
 * How wide a picture the slot of one element asks for, by the width of the viewport, the same in every view: as wide as
 * the slot; where `object-fit` covers a slot that is higher, or is contained in one that is lower, as what is drawn.
 */
export interface SlotCurve {
  readonly page: string;
  readonly kind: PlacementKind;
  readonly selector: string;
  readonly pieces: readonly CurvePiece[];
}
