import type { SeenNames } from '../../core/survey/style-use.js';
import { classListOf, idOf, localNameOf } from './element.js';
import { hasAny, selectAll, treesOf } from './trees.js';

/** The most elements whose names are looked at. */
const maxElements = 100_000;
/** The most names of a document that are kept, and the longest. */
const maxNames = 50_000;
const maxLength = 200;

const seen = new Set<string>();

/** Notes what elements are called by now: scripts take names away again. */
export function noteNames(): void {
  for (const name of namesNow()) if (seen.size < maxNames) seen.add(name);
}

/** What elements are called, and were called whenever it was noted. */
export function namesSeen(): SeenNames {
  const now = namesNow();
  return { now: [...now], before: [...seen].filter((name) => !now.has(name)) };
}

function namesNow(): Set<string> {
  const names = new Set<string>();
  const add = (name: string) => {
    if (name.length <= maxLength && names.size < maxNames) names.add(name.toLowerCase());
  };
  let left = maxElements;
  for (const tree of treesOf(document))
    for (const element of selectAll(tree, '*')) {
      if (left-- <= 0) return names;
      add(localNameOf(element));
      if (idOf(element) !== '') add(`#${idOf(element)}`);
      for (const name of classListOf(element)) add(`.${name}`);
    }
  return names;
}

/**
 * Which of some selectors any element of the document matches, each as 1 or 0. Of what a selector cannot be asked for, and after
 * `limit` milliseconds of all that are left, it is taken that one does.
 */
export function matchedSelectors(selectors: readonly string[], limit: number): number[] {
  const end = performance.now() + limit;
  const trees = treesOf(document);
  return selectors.map((selector) => {
    if (performance.now() > end) return 1;
    try {
      return trees.some((tree) => hasAny(tree, selector)) ? 1 : 0;
    } catch {
      return 1;
    }
  });
}
