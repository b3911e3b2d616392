import { comeToRest } from './at-rest.js';
import { isConnected } from './element.js';
import { pathFinder } from './element-path.js';
import { keptAddress } from '../../core/address/address.js';
import { boxOnPage, inFirstScreen, isAside, isShown } from './box.js';
import type { FirstScreen } from './box.js';
import { layoutsKnown } from './held-back.js';
import * as elements from './kinds/elements.js';
import * as styles from './kinds/styles.js';
import type { Found, PlacementProbe, ProbedPlacement, Spot } from './probed.js';
import { maxPlacements } from './limits.js';
import { namingMany, selectorOf } from './selector.js';
import { drawn } from './waiting.js';
import { spotsOf } from './walk.js';

/** Every kind of placement; to add one, add a probe to kinds/. */
const kinds: readonly PlacementProbe[] = [...Object.values(elements), ...Object.values(styles)];

/** The placements found, kept so that they can be measured again at other widths. */
const kept: { readonly spot: Spot; readonly found: Found; readonly ratio: number | null }[] = [];

/**
 * All placements of the document and its open shadow roots, at most 5,000 of them.
 *
 * @param screen where this document stands in the first screen; left out, it is the page itself
 */
export function placementsOf(
  screen: FirstScreen = { left: 0, top: 0, width: innerWidth, height: innerHeight },
): ProbedPlacement[] {
  comeToRest();
  return namingMany(() => foundOn(screen));
}

function foundOn(screen: FirstScreen): ProbedPlacement[] {
  kept.length = 0;
  const placements: ProbedPlacement[] = [];
  const pathTo = pathFinder();
  for (const spot of spotsOf(document))
    for (const { kind, find } of kinds)
      for (const found of attempt(find, spot)) {
        if (placements.length >= maxPlacements) return placements;
        kept.push({ spot, found, ratio: found.ratio?.() ?? null });
        placements.push({
          kind,
          selector: selectorOf(spot.element) + spot.pseudo,
          url: keptAddress(found.url),
          slot: found.slot(),
          fit: found.fit,
          drawn: found.drawn ?? null,
          naturalDensity: found.naturalDensity ?? 1,
          box: boxOnPage(spot.element, screen),
          aboveFold: inFirstScreen(spot.element, screen),
          aside: isAside(spot.element),
          shown: isShown(spot),
          loading: found.loading ?? 'eager',
          markup: found.markup ?? null,
          element: found.element ?? null,
          path: pathTo(spot.element),
        });
      }
  return placements;
}

/** If a probe fails at a spot, only that spot is lost, not the page. */
function attempt(find: PlacementProbe['find'], spot: Spot): readonly Found[] {
  try {
    return find(spot);
  } catch {
    return [];
  }
}

/** What `layoutsKnown` says of each placement, in the order of `placementsOf`; `null` for what is no `<img>`, too. */
export function layoutsKnownBefore(): (boolean | null)[] {
  const images = kept.filter(({ found }) => found.markup).map(({ spot }) => spot.element);
  const known = layoutsKnown(images).values();
  return kept.map(({ found }) => (found.markup ? known.next().value! : null));
}

/** The documents and shadow roots that the placements are in. */
export function rootsOfPlacements(): ReadonlySet<Document | ShadowRoot> {
  const roots = new Set<Document | ShadowRoot>();
  for (const { spot } of kept) {
    const root = Node.prototype.getRootNode.call(spot.element);
    if (root instanceof Document || root instanceof ShadowRoot) roots.add(root);
  }
  return roots;
}

/** How wide a picture every slot needs at one viewport width. */
export interface SlotWidths {
  readonly viewport: number;
  /**
   * In the order of `placementsOf`: the width of the slot or, where `object-fit` covers it or is contained in it, of
   * what is drawn; `null` for what is not shown or no longer there.
   */
  readonly widths: readonly (number | null)[];
}

/** Measures every slot as it is now. */
export function slotWidths(): SlotWidths {
  comeToRest(true);
  const widths = kept.map(({ spot, found, ratio }) =>
    isConnected(spot.element) && isShown(spot) ? drawnWidth(found, ratio) : null,
  );
  return { viewport: innerWidth, widths };
}

/** The longest wait for each of the two frames: what is measured too early would be wrong. */
const longestReaction = 2_000;

/** The same once the page's scripts have reacted to the change of the window's width, be it in the frame after the next. */
export async function slotWidthsOnceDrawn(): Promise<SlotWidths> {
  await drawn(longestReaction);
  await drawn(longestReaction);
  return slotWidths();
}

function drawnWidth({ fit, slot }: Found, ratio: number | null): number {
  const { width, height } = slot();
  if (ratio === null) return width;
  if (fit === 'cover') return Math.max(width, height * ratio);
  return fit === 'contain' ? Math.min(width, height * ratio) : width;
}
