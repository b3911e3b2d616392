import { sizesText } from '../../slots/sizes-text.js';
import { slotWidthAt } from '../../slots/slot-curve.js';
import { parseSizes, wholeViewport } from '../../slots/source-sizes.js';
import { chosenWidth, offeredWidths, parseSrcset } from '../../slots/srcset.js';
import type { View } from '../../visitors/view.js';
import { imageFinding } from './image-case.js';

/** What `sizes` names may differ from the slot by this factor: candidates are not so close together. */
const tolerance = 1.15;

/** The viewport widths considered: those of real screens. */
const widths = [360, 390, 430, 600, 768, 820, 1024, 1280, 1366, 1440, 1600, 1920, 2560] as const;

/**
 * Compares what `sizes` declares with the slot as it was measured at all widths. Without `sizes` a browser takes the
 * slot to be as wide as the viewport.
 */
export const wrongSizes = imageFinding({
  id: 'wrong-sizes',
  title: 'sizes wrong or missing',
  doer: 'markup',
  fix: 'Write the text for sizes that explain names.',
  isWork: false,
  check: ({ placements, views }) => {
    for (const placement of placements) {
      const { markup, shown } = placement;
      if (!shown || !markup?.srcset || !/\s\d+w\b/.test(markup.srcset)) continue;
      const slotCurve = placement.curve();
      if (!slotCurve?.length) continue;
      const declared = markup.sizes === null ? wholeViewport : parseSizes(markup.sizes);
      if (!declared) continue;
      let worst: { declared: number; slot: number; viewport: number } | undefined;
      let most = tolerance;
      for (const viewport of widths) {
        const slot = slotWidthAt(slotCurve, viewport);
        const named = declared(viewport);
        if (!slot || named <= 0) continue;
        const factor = Math.max(named / slot, slot / named);
        if (factor <= most) continue;
        most = factor;
        worst = { declared: Math.round(named), slot: Math.round(slot), viewport };
      }
      if (!worst) continue;
      const view = views.get(placement.view);
      return {
        ...worst,
        missing: markup.sizes === null,
        sizes: sizesText(slotCurve),
        chosen: view
          ? chosenIn(view, markup.srcset, declared(view.width), placement.slot.width)
          : null,
      };
    }
    return undefined;
  },
  describe: ({ declared, slot, viewport, missing, sizes, chosen }) => {
    const says = missing ? 'sizes is missing, which means' : 'sizes says';
    const taken = chosen
      ? ` (${chosen.view} takes ${chosen.taken}w and should take ${chosen.right}w)`
      : '';
    return `${says} ${declared} px at a window width of ${viewport} px, where the slot has ${slot} px${taken}: write sizes="${sizes}"`;
  },
});

/** The candidate that a view takes because of the declared width, and the one it would take for the slot, if they differ. */
function chosenIn(view: View, srcset: string, declared: number, slot: number) {
  const offered = offeredWidths(parseSrcset(srcset));
  const taken = chosenWidth(offered, declared * view.density);
  const right = chosenWidth(offered, slot * view.density);
  return taken === right ? null : { view: view.name, taken: taken ?? null, right: right ?? null };
}
