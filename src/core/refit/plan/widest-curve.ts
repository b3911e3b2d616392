import type { PlacedImage } from '../../findings/image/image-case.js';
import { slotWidthAt } from '../../slots/slot-curve.js';
import type { CurvePiece } from '../../slots/slot-curve.js';

/** The curve of the placement whose slot is the widest where most screens are. */
export function widestCurve(placed: readonly PlacedImage[]): readonly CurvePiece[] | null {
  let widest: readonly CurvePiece[] | null = null;
  for (const placement of placed) {
    const curve = placement.shown ? placement.curve : null;
    if (curve?.length && curve !== widest && (!widest || usualWidth(curve) > usualWidth(widest)))
      widest = curve;
  }
  return widest;
}

function usualWidth(curve: readonly CurvePiece[]): number {
  return [390, 768, 1366, 1920].reduce(
    (sum, viewport) => sum + (slotWidthAt(curve, viewport) ?? 0),
    0,
  );
}
