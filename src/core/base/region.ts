import type { Size } from './size.js';

/** A piece of a picture or a page, in its pixels. */
export interface Region extends Size {
  readonly left: number;
  readonly top: number;
}
