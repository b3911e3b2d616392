import { addressPattern } from '../address/address-pattern.js';
import type { SketchedPage } from './document-sketch.js';

/** Skeletons of one template are at least this much alike. */
const leastAlike = 0.7;

/** Against more skeletons of one folder than this a group is not held. */
const maxSkeletons = 500;

interface Joined {
  readonly skeleton: ReadonlySet<number>;
  readonly parts: (readonly SketchedPage[])[];
}

/**
 * Joins groups whose pages stand in one folder and have one skeleton: in manuals and on pages written by hand, what stands in
 * the texts is larger than what the template makes, and hides it. At the top of a site stand pages of all kinds: there it
 * tells nothing.
 */
export function joinedGroups(groups: readonly SketchedPage[][]): SketchedPage[][] {
  const joined: Joined[] = [];
  const byFolder = new Map<string, Joined[]>();
  for (const pages of groups) {
    const skeleton = new Set(pages[0]!.sketch.skeleton);
    const folder = skeleton.size > 0 ? folderOf(pages) : undefined;
    const inFolder = folder === undefined ? [] : (byFolder.get(folder) ?? []);
    const same = inFolder.find((other) => alike(skeleton, other.skeleton) >= leastAlike);
    if (same) {
      same.parts.push(pages);
      continue;
    }
    const own = { skeleton, parts: [pages] };
    joined.push(own);
    if (folder === undefined || inFolder.length >= maxSkeletons) continue;
    inFolder.push(own);
    byFolder.set(folder, inFolder);
  }
  return joined.map(({ parts }) => parts.flat());
}

/** The pattern of the addresses of a group below the top of a site; `undefined` where they have several, or stand there. */
export function folderOf(pages: readonly SketchedPage[]): string | undefined {
  const [pattern, ...others] = new Set(pages.map(({ url }) => addressPattern(url)));
  if (pattern === undefined || others.length > 0) return undefined;
  const { pathname, search } = new URL(pattern);
  return pathname.lastIndexOf('/') > 0 || search !== '' ? pattern : undefined;
}

/** The Jaccard coefficient. */
function alike(one: ReadonlySet<number>, other: ReadonlySet<number>): number {
  const both = [...one].filter((hash) => other.has(hash)).length;
  return both / Math.max(1, one.size + other.size - both);
}
