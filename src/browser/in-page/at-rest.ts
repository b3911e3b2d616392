import { treesOf } from './trees.js';
import type { Tree } from './trees.js';

/** The document and the open shadow roots that were in it when it was first brought to rest. */
let trees: readonly Tree[] = [];

/**
 * Brings every CSS transition that is under way to its end: what is measured of a page is what it comes to, and not a size
 * on the way there. Animations are left alone: they may have no end.
 *
 * @param again whether it was done before, and shadow roots need not be looked for once more
 */
export function comeToRest(again = false): void {
  if (!again) trees = treesOf(document);
  for (const tree of trees)
    for (const animation of animationsIn(tree))
      if (animation instanceof CSSTransition) finish(animation);
}

function finish(transition: CSSTransition): void {
  try {
    transition.finish();
  } catch {
    // A script has taken its end away: it is measured where it is.
  }
}

/** An element may be named like a function of the document, and then stands in its place. */
function animationsIn(tree: Tree): Animation[] {
  return tree instanceof Document
    ? Document.prototype.getAnimations.call(tree)
    : ShadowRoot.prototype.getAnimations.call(tree);
}
