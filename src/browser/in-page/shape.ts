import { sketchSize } from '../../core/survey/page-groups.js';

/** The most elements that are examined; a template shows long before that. */
const maxElements = 5_000;

/** How many elements up the tree tell one place in a document from another. */
const reach = 3;

/**
 * A sketch of how the document's elements are nested: the smallest hashes of all paths of names and
 * classes in it, each once. How often something is repeated does not change it.
 */
export function shapeOf(): number[] {
  const hashes = new Set<number>();
  const labels = new Map<Element, string>();
  const labelOf = (element: Element) => {
    let label = labels.get(element);
    if (label === undefined) labels.set(element, (label = labelled(element)));
    return label;
  };
  let left = maxElements;
  for (const element of document.body?.querySelectorAll('*') ?? []) {
    if (left-- <= 0) break;
    const path: string[] = [];
    let at: Element | null = element;
    for (let step = 0; at && step <= reach; step++, at = at.parentElement) path.push(labelOf(at));
    hashes.add(hashOf(path.join('<')));
  }
  return [...hashes].sort((a, b) => a - b).slice(0, sketchSize);
}

/** Name and classes, without classes that have digits: those are generated and differ on every page. */
function labelled(element: Element): string {
  const classes = [...element.classList].filter((name) => !/\d/.test(name)).sort();
  return [element.localName, ...classes].join('.').slice(0, 200);
}

/** FNV-1a, 32 bit (Fowler, Noll and Vo). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let index = 0; index < text.length; index++)
    hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193);
  return hash >>> 0;
}
