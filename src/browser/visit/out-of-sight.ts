/**
 * Where the browser looks at a page while it is measured: far beyond its end, so that nothing of it is painted and none of its
 * pictures is decoded, which would be a tenth of the work of a visit. The page is told nothing of it: its layout, its scrolling
 * and what its scripts observe are those of the whole window.
 */
export const outOfSight = { x: 1_000_000, y: 1_000_000, width: 1, height: 1, scale: 1 } as const;
