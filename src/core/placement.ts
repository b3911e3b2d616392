import type { ObjectFit } from './rendered-size.js';
import type { Size } from './size.js';

/** The ways in which a page can show an image. */
export type PlacementKind = 'img';

/** One image shown in one slot on one page, as seen in one view. */
export interface Placement {
  readonly page: string;
  readonly view: string;
  readonly kind: PlacementKind;
  /** A CSS selector that finds the element again. */
  readonly selector: string;
  /** The address that the browser chose. */
  readonly url: string;
  /** The image file behind the address, or `null` when it did not arrive. */
  readonly contentHash: string | null;
  /** Content box in CSS pixels, transforms applied. */
  readonly slot: Size;
  readonly fit: ObjectFit;
  /** Whether any part of it is in the first screen. */
  readonly aboveFold: boolean;
  /** Whether it has a box that is not hidden. */
  readonly shown: boolean;
  readonly loading: 'lazy' | 'eager';
}
