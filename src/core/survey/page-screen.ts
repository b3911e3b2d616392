/** Where the placements of a visit stand on their page, and what its first screen looked like. */
export interface PageScreen {
  /** Of the whole page, in CSS pixels. */
  readonly width: number;
  readonly height: number;
  /**
   * Whole CSS pixels, four numbers for each placement of the visit, in their order: left, top, width and height of the
   * element. Of width and height 0 for what is not shown.
   */
  readonly boxes: readonly number[];
  /** The first screen as WebP; `null` where no picture was taken. */
  readonly picture: Uint8Array | null;
}
