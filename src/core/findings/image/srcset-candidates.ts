import { chosenWidth, offeredWidths, parseSrcset } from '../../slots/srcset.js';
import { whereOf, whereWords } from '../where.js';
import type { Where } from '../where.js';
import { imageFinding } from './image-case.js';

/** A candidate that has this many times the pixels across that are needed is too far from what was needed. */
const tooFar = 1.6;
/** Of two candidates nearer to one another than this, one is superfluous. */
const tooNear = 1.08;
const mostCandidates = 12;

/** What is wrong with the widths that are offered. */
type Fault =
  | { readonly fault: 'too many' }
  | { readonly fault: 'alike'; readonly alike: readonly [number, number] }
  | { readonly fault: 'gap' | 'too narrow'; readonly needed: number };

/** The widths in a `srcset` do not fit what the slots need: too few candidates, or too many. */
export const srcsetCandidates = imageFinding({
  id: 'srcset-candidates',
  title: 'srcset with gaps or too many widths',
  doer: 'markup',
  fix: 'Offer the widths that explain and refit name.',
  isWork: false,
  docs: {
    meaning:
      'The candidate that a view takes has far more pixels than it needs, or too few; widths nearly repeat; or there are more than twelve.',
    why: 'The right file is not on offer.',
    computed: 'By the slot curve of the element and the widths in srcset.',
    ignore: 'Where the widths serve a slot that the survey did not see.',
  },
  check: ({ placements, views, policy }) => {
    for (const placement of placements) {
      const { markup, shown, slot, view } = placement;
      if (!shown || !markup?.srcset) continue;
      const widths = offeredWidths(parseSrcset(markup.srcset));
      if (widths.length === 0) continue;
      const density = Math.min(views.get(view)?.density ?? 1, policy.density);
      const fault = tooMany(widths) ?? tooFew(widths, slot.width * density);
      if (fault) return { ...fault, widths, view, where: whereOf([placement]) };
    }
    return undefined;
  },
  describe: (data) => `srcset offers ${faultWords(data)} (${whereWords(data.where)})`,
});

function tooMany(widths: readonly number[]): Fault | undefined {
  if (widths.length > mostCandidates) return { fault: 'too many' };
  const near = widths.findIndex((width, at) => at > 0 && width / widths[at - 1]! < tooNear);
  return near < 0 ? undefined : { fault: 'alike', alike: [widths[near - 1]!, widths[near]!] };
}

function tooFew(widths: readonly number[], needed: number): Fault | undefined {
  const chosen = chosenWidth(widths, needed);
  if (!chosen || needed < 1) return undefined;
  if (chosen / needed > tooFar) return { fault: 'gap', needed: Math.ceil(needed) };
  return chosen < needed / tooFar ? { fault: 'too narrow', needed: Math.ceil(needed) } : undefined;
}

function faultWords(
  data: Fault & {
    readonly widths: readonly number[];
    readonly view: string;
    readonly where: Where;
  },
): string {
  switch (data.fault) {
    case 'too many':
      return `${data.widths.length} widths: a handful is enough`;
    case 'alike':
      return `${data.alike[0]} and ${data.alike[1]} pixels, which are nearly the same`;
    case 'gap':
    case 'too narrow': {
      const missing = data.fault === 'gap' ? 'one in between is missing' : 'a wider one is missing';
      return `${data.widths.join(', ')} pixels, and ${data.view} needs ${data.needed}: ${missing}`;
    }
  }
}
