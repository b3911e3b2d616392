import type { ProbedPlacement } from '../in-page/probed.js';
import type { MeasuredDocument } from './frames.js';

/** Whether the layout around each image is known before its file arrives, document by document; `null` where not measured. */
export async function layoutsKnown(
  documents: readonly MeasuredDocument[],
): Promise<(boolean | null)[]> {
  const each = await Promise.all(
    documents.map(({ world, placements }) =>
      world
        .call<(boolean | null)[]>('layoutsKnownBefore')
        // A frame that is gone.
        .catch(() => placements.map(() => null)),
    ),
  );
  return each.flat();
}

/** What was measured goes before what the markup lets expect. */
export function withLayoutKnown(
  placement: ProbedPlacement,
  known: boolean | null,
): ProbedPlacement {
  const { markup } = placement;
  if (!markup || known === null) return placement;
  return { ...placement, markup: { ...markup, dimensions: known } };
}
