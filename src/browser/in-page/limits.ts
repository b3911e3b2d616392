/** The most placements that are measured on a page, and the most links that are read. */
export const maxPlacements = 5_000;
export const maxLinks = 5_000;
/** The letters of the names, ids and classes around the placements of a document that are kept. */
export const maxPathLetters = 2_000_000;
