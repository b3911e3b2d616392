import type { Placement } from '../../core/placement.js';

/** A placement as the page alone can know it. */
export type ProbedPlacement = Omit<Placement, 'page' | 'view' | 'contentHash'>;

/** One way in which pages show images: finds all of its kind in the document. */
export type PlacementProbe = (document: Document) => ProbedPlacement[];
