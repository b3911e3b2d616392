import { shadowRootOf } from './element.js';

export type Tree = Document | ShadowRoot;

/** A document, and the open shadow roots in it. */
export function treesOf(root: Document): Tree[] {
  const found: Tree[] = [root];
  // What is found is looked through in its turn.
  for (const tree of found)
    for (const element of selectAll(tree, '*')) {
      const inside = shadowRootOf(element);
      if (inside) found.push(inside);
    }
  return found;
}

/** An element may be named like a function of the document, and then stands in its place. */
export function selectAll(tree: Tree, selector: string): NodeListOf<Element> {
  return prototypeOf(tree).querySelectorAll.call<Tree, [string], NodeListOf<Element>>(
    tree,
    selector,
  );
}

export function hasAny(tree: Tree, selector: string): boolean {
  return prototypeOf(tree).querySelector.call(tree, selector) !== null;
}

function prototypeOf(tree: Tree): ParentNode {
  return tree instanceof Document ? Document.prototype : DocumentFragment.prototype;
}
