import type { Markup } from './placement.js';
import { slotWidthAt } from './slot-curve.js';
import type { CurvePiece } from './slot-curve.js';
import { parseSizes, wholeViewport } from './source-sizes.js';

/** What `sizes` names may differ from the slot by this factor: candidates are not so close together. */
const tolerance = 1.15;

/** The viewport widths considered: those of real screens. */
const widths = [360, 390, 430, 600, 768, 820, 1024, 1280, 1366, 1440, 1600, 1920, 2560] as const;

/** Where `sizes` is farthest from the slot, in CSS pixels. */
export interface SizesError {
  readonly declared: number;
  readonly slot: number;
  readonly viewport: number;
}

/**
 * Compares what `sizes` declares with the slot as it was measured at all widths. Without `sizes` a browser takes the
 * slot to be as wide as the viewport.
 *
 * @returns `undefined` where it is right, where it is not read (`auto` among it), or where nothing chooses by width
 */
export function sizesError(
  { srcset, sizes }: Pick<Markup, 'srcset' | 'sizes'>,
  curve: readonly CurvePiece[],
): SizesError | undefined {
  if (!/\s\d+w\b/.test(srcset ?? '')) return undefined;
  const declared = sizes === null ? wholeViewport : parseSizes(sizes);
  if (!declared) return undefined;
  let worst: SizesError | undefined;
  let most = tolerance;
  for (const viewport of widths) {
    const slot = slotWidthAt(curve, viewport);
    const named = declared(viewport);
    if (!slot || named <= 0) continue;
    const factor = Math.max(named / slot, slot / named);
    if (factor <= most) continue;
    most = factor;
    worst = { declared: Math.round(named), slot: Math.round(slot), viewport };
  }
  return worst;
}
