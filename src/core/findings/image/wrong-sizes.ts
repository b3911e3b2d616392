import { sizesError } from '../../slots/sizes-error.js';
import { sizesText } from '../../slots/sizes-text.js';
import { parseSizes, wholeViewport } from '../../slots/source-sizes.js';
import { chosenWidth, offeredWidths, parseSrcset } from '../../slots/srcset.js';
import type { View } from '../../visitors/view.js';
import { imageFinding } from './image-case.js';

export const wrongSizes = imageFinding({
  id: 'wrong-sizes',
  title: 'sizes wrong or missing',
  doer: 'markup',
  fix: 'Write the text for sizes that explain names.',
  isWork: false,
  docs: {
    meaning:
      'sizes, or its absence beside a srcset of widths, differs from the measured slot by more than 15 %.',
    why: 'Browsers choose the file before they know the layout, by sizes alone.',
    computed:
      'By the slot curve from 320 to 2560 px; the message has the text that would be right.',
    ignore: 'Where the layout depends on what the visitor does.',
  },
  check: ({ placements, views }) => {
    for (const placement of placements) {
      const { markup, shown } = placement;
      const slotCurve = placement.curve;
      if (!shown || !markup?.srcset || !slotCurve?.length) continue;
      const worst = sizesError(markup, slotCurve);
      if (!worst) continue;
      const declared = markup.sizes === null ? wholeViewport : parseSizes(markup.sizes)!;
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
