import { chosenWidth, offeredWidths, parseSrcset } from '../../slots/srcset.js';
import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

/** A candidate that has this many times the pixels across that are needed is too far from what was needed. */
const tooFar = 1.6;
/** Two candidates nearer to one another than this are one too many. */
const tooNear = 1.08;
const mostCandidates = 12;

/** Holds what a `srcset` of widths offers against what the slots need: too few candidates, or too many. */
export const srcsetCandidates: ImageCheck = ({ placements, views, policy }) => {
  for (const placement of placements) {
    const { markup, shown, slot, view } = placement;
    if (!shown || !markup?.srcset) continue;
    const widths = offeredWidths(parseSrcset(markup.srcset));
    if (widths.length === 0) continue;
    const words = tooMany(widths) ?? tooFew(widths, needed(slot.width, views.get(view)?.density));
    if (words)
      return {
        id: 'srcset-candidates',
        message: `srcset offers ${words.replace('VIEW', view)} (${whereOf([placement])})`,
      };
  }
  return undefined;

  function needed(slot: number, density = 1): number {
    return slot * Math.min(density, policy.density);
  }
};

function tooMany(widths: readonly number[]): string | undefined {
  if (widths.length > mostCandidates) return `${widths.length} widths: a handful is enough`;
  const near = widths.findIndex((width, at) => at > 0 && width / widths[at - 1]! < tooNear);
  if (near < 0) return undefined;
  return `${widths[near - 1]} and ${widths[near]} pixels, which are nearly the same`;
}

function tooFew(widths: readonly number[], needed: number): string | undefined {
  const chosen = chosenWidth(widths, needed);
  if (!chosen || needed < 1) return undefined;
  const told = `${widths.join(', ')} pixels, and VIEW needs ${Math.ceil(needed)}`;
  if (chosen / needed > tooFar) return `${told}: one in between is missing`;
  return chosen < needed / tooFar ? `${told}: a wider one is missing` : undefined;
}
