import { sizesText } from '../../slots/sizes-text.js';
import { parseSizes, wholeViewport } from '../../slots/source-sizes.js';
import { chosenWidth, offeredWidths, parseSrcset } from '../../slots/srcset.js';
import { slotWidthAt } from '../../slots/slot-curve.js';
import type { View } from '../../visitors/view.js';
import type { ImageCheck } from './finding.js';

/** What `sizes` names may differ from the slot by this factor: candidates are not so close together. */
const tolerance = 1.15;

/** Widths of the viewport that are looked at: those that screens have. */
const widths = [360, 390, 430, 600, 768, 820, 1024, 1280, 1366, 1440, 1600, 1920, 2560] as const;

/**
 * Holds what `sizes` declares against the slot as it was measured at all widths. Without it a browser
 * takes the slot to be as wide as the viewport.
 */
export const wrongSizes: ImageCheck = ({ placements, views }) => {
  for (const placement of placements) {
    const { markup, shown } = placement;
    if (!shown || !markup?.srcset || !/\s\d+w\b/.test(markup.srcset)) continue;
    const slotCurve = placement.curve();
    if (!slotCurve?.length) continue;
    const declared = markup.sizes === null ? wholeViewport : parseSizes(markup.sizes);
    if (!declared) continue;
    let worst = { factor: tolerance, words: '' };
    for (const viewport of widths) {
      const slot = slotWidthAt(slotCurve, viewport);
      const named = declared(viewport);
      if (!slot || named <= 0) continue;
      const factor = Math.max(named / slot, slot / named);
      if (factor <= worst.factor) continue;
      const words = `${Math.round(named)} px at a width of ${viewport} px, where the slot has ${Math.round(slot)} px`;
      worst = { factor, words };
    }
    if (worst.words === '') continue;
    const view = views.get(placement.view);
    const fetched = view
      ? fetchedWords(markup.srcset, declared(view.width), placement.slot.width, view)
      : '';
    const says = markup.sizes === null ? 'sizes is missing, which means' : 'sizes says';
    return {
      id: 'wrong-sizes',
      message: `${says} ${worst.words}${fetched}: say sizes="${sizesText(slotCurve)}"`,
    };
  }
  return undefined;
};

/** What a view takes because of the declared width, and what it would take for the slot, where that is another. */
function fetchedWords(srcset: string, declared: number, slot: number, view: View): string {
  const widths = offeredWidths(parseSrcset(srcset));
  const taken = chosenWidth(widths, declared * view.density);
  const right = chosenWidth(widths, slot * view.density);
  return taken === right ? '' : ` (${view.name} takes ${taken}w where it would take ${right}w)`;
}
