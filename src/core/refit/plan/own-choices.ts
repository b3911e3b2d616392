import type { PlacedImage } from '../../findings/image/image-case.js';
import type { Ranking } from '../../rank/ranking.js';
import { slotOf } from '../../slots/family-key.js';
import { parseSizes, wholeViewport } from '../../slots/source-sizes.js';
import type { View } from '../../visitors/view.js';
import { offersOwnWidths, ownCandidates } from './own-widths.js';
import type { OwnCandidate } from './own-widths.js';

/** An element that chooses among widths that the site offers itself, in one view. */
export interface OwnChoice {
  readonly placed: PlacedImage;
  /** The narrowest first, at least two. */
  readonly candidates: readonly OwnCandidate[];
  /** The same for all elements that offer the same candidates. */
  readonly picture: string;
  readonly view: View;
  /** Page group, or the address of the page. */
  readonly where: string;
  readonly slot: string;
  /** The weight of its visit. */
  readonly weight: number;
}

/** All elements of a site that choose among its own widths, in every view that shows them. */
export function ownChoices({ images, ledger }: Pick<Ranking, 'images' | 'ledger'>): OwnChoice[] {
  const { groups, facts } = ledger;
  const { head, visits } = facts;
  const views = new Map(head.views.map((view) => [view.name, view]));
  const weights = new Map(
    visits.map(({ page, view }, at) => [`${page}\n${view}`, ledger.weights[at]!] as const),
  );
  return images
    .filter(({ thirdParty }) => !thirdParty)
    .flatMap(({ placed }) => placed)
    .filter((placed) => placed.shown && offersOwnWidths(placed))
    .flatMap((placed): OwnChoice[] => {
      const view = views.get(placed.view);
      const candidates = ownCandidates(placed);
      if (!view || candidates.length < 2) return [];
      return [
        {
          ...{ placed, candidates, view, slot: slotOf(placed.selector) },
          picture: candidates.map(({ url }) => url).join('\n'),
          where: groups.get(placed.page) ?? placed.page,
          weight: weights.get(`${placed.page}\n${placed.view}`) ?? 0,
        },
      ];
    });
}

/**
 * Device pixels across that a browser asks for in a view.
 *
 * @param sizes the text of `sizes`; `null` for none
 */
export function askedWidth(sizes: string | null, { width, density }: View): number {
  const declared = sizes === null ? wholeViewport : parseSizes(sizes);
  return Math.ceil((declared?.(width, density) ?? width) * density - 0.01);
}
