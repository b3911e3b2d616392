import { img } from './kinds/img.js';
import type { PlacementProbe, ProbedPlacement } from './probed.js';

/** Every kind of placement; a new one is a file in kinds/ and a word in this list. */
const kinds: readonly PlacementProbe[] = [img];

const maxPlacements = 5_000;
const maxAddress = 4_096;

/** All placements of the document, in its order, at most 5,000 of them. */
export function placementsOf(): ProbedPlacement[] {
  return kinds
    .flatMap((probe) => probe(document))
    .slice(0, maxPlacements)
    .map((placement) => ({ ...placement, url: placement.url.slice(0, maxAddress) }));
}
