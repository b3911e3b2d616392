import { childrenOf, documentOf, idOf, localNameOf, parentElementOf, rootOf } from './element.js';

const maxDepth = 24;

/**
 * A CSS selector that finds the element again: from the nearest unique id, child by child; `>>>` steps
 * into a shadow root.
 */
export function selectorOf(element: Element): string {
  const root = rootOf(element);
  const inside = withinRoot(element, root);
  return root instanceof ShadowRoot ? `${selectorOf(root.host)} >>> ${inside}` : inside;
}

function withinRoot(element: Element, root: Node): string {
  const scope = root instanceof ShadowRoot ? root : documentOf(element)!;
  const steps: string[] = [];
  let at: Element | null = element;
  while (at && steps.length < maxDepth) {
    const id = idOf(at);
    if (id && id.length < 80 && scope.querySelectorAll(`#${CSS.escape(id)}`).length === 1) {
      steps.unshift(`#${CSS.escape(id)}`);
      break;
    }
    steps.unshift(stepOf(at));
    at = parentElementOf(at);
    if (at && at === documentOf(at)?.documentElement) break;
  }
  return steps.join(' > ');
}

function stepOf(element: Element): string {
  const name = localNameOf(element);
  const step = CSS.escape(name);
  const { place, of } = placeAmongPeers(element, name);
  return of > 1 ? `${step}:nth-of-type(${place})` : step;
}

/** The elements of one name in one parent, and the place of each. */
type Peers = ReadonlyMap<Element, number>;

/** By parent, then by name; only while nothing can change. */
let known: WeakMap<Node, ReadonlyMap<string, Peers>> | undefined;

/**
 * Counts the children of a parent once for all of them, however many there are.
 *
 * @param work names many elements; it must not wait for anything, for then the page goes on
 */
export function namingMany<Result>(work: () => Result): Result {
  known = new WeakMap();
  try {
    return work();
  } finally {
    known = undefined;
  }
}

function placeAmongPeers(
  element: Element,
  name: string,
): { readonly place: number; readonly of: number } {
  const parent = parentElementOf(element) ?? rootOf(element);
  const byName = known?.get(parent) ?? peersIn(parent);
  known?.set(parent, byName);
  const peers = byName.get(name);
  return { place: peers?.get(element) ?? 1, of: peers?.size ?? 1 };
}

function peersIn(parent: Node): ReadonlyMap<string, Peers> {
  const byName = new Map<string, Map<Element, number>>();
  for (const child of elementsIn(parent)) {
    const name = localNameOf(child);
    const same = byName.get(name) ?? new Map<Element, number>();
    same.set(child, same.size + 1);
    byName.set(name, same);
  }
  return byName;
}

function elementsIn(parent: Node): Iterable<Element> {
  if (parent instanceof Element) return childrenOf(parent);
  return parent instanceof Document || parent instanceof DocumentFragment ? parent.children : [];
}
