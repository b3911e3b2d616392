/** The most placements that are measured on a page, and the most links that are read. */
export const maxPlacements = 5_000;
export const maxLinks = 5_000;
