import { addressPattern } from '../address/address-pattern.js';
import type { SketchedPage } from './document-sketch.js';

/** Skeletons of one template are at least this much alike, and at the top of a site this much. */
const leastAlike = { inFolder: 0.7, atTop: 0.9 } as const;

/** A smaller skeleton tells nothing of pages at the top of a site. */
const leastAtTop = 20;

/** Against more skeletons of one folder than this a group is not held. */
const maxSkeletons = 500;

interface Joined {
  readonly skeleton: ReadonlySet<number>;
  readonly parts: (readonly SketchedPage[])[];
}

/**
 * Joins groups whose pages stand in one folder and have one skeleton: in manuals and on pages written by hand, what stands in
 * the texts is larger than what the template makes, and hides it. At the top of a site stand pages of all kinds: there a
 * skeleton has to be large and hardly different, and what the template calls itself the same.
 */
export function joinedGroups(groups: readonly SketchedPage[][]): SketchedPage[][] {
  const joined: Joined[] = [];
  const byPlace = new Map<string, Joined[]>();
  for (const pages of groups) {
    const skeleton = new Set(pages[0]!.sketch.skeleton);
    const { place, least } = placeOf(pages, skeleton.size);
    const others = place === undefined ? [] : (byPlace.get(place) ?? []);
    const same = others.find((other) => alike(skeleton, other.skeleton) >= least);
    if (same) {
      same.parts.push(pages);
      continue;
    }
    const own = { skeleton, parts: [pages] };
    joined.push(own);
    if (place === undefined || others.length >= maxSkeletons) continue;
    others.push(own);
    byPlace.set(place, others);
  }
  return joined.map(({ parts }) => parts.flat());
}

/** Where groups may be joined with one, and how much alike they have to be; no place where none may be. */
function placeOf(
  pages: readonly SketchedPage[],
  size: number,
): { readonly place: string | undefined; readonly least: number } {
  const pattern = size > 0 ? patternOf(pages) : undefined;
  if (pattern === undefined || isBelowTop(pattern))
    return { place: pattern, least: leastAlike.inFolder };
  const marks = pages[0]!.sketch.marks.join(' ');
  return {
    place: size >= leastAtTop ? `${pattern} ${marks}` : undefined,
    least: leastAlike.atTop,
  };
}

/** The pattern of the addresses of a group below the top of a site; `undefined` where they have several, or stand there. */
export function folderOf(pages: readonly SketchedPage[]): string | undefined {
  const pattern = patternOf(pages);
  return pattern !== undefined && isBelowTop(pattern) ? pattern : undefined;
}

function patternOf(pages: readonly SketchedPage[]): string | undefined {
  const [pattern, ...others] = new Set(pages.map(({ url }) => addressPattern(url)));
  return others.length > 0 ? undefined : pattern;
}

function isBelowTop(pattern: string): boolean {
  const { pathname, search } = new URL(pattern);
  return pathname.lastIndexOf('/') > 0 || search !== '';
}

/** The Jaccard coefficient. */
function alike(one: ReadonlySet<number>, other: ReadonlySet<number>): number {
  const both = [...one].filter((hash) => other.has(hash)).length;
  return both / Math.max(1, one.size + other.size - both);
}
