import type { ElementPath } from '../../core/slots/element-path.js';
import { attributeOf, localNameOf, parentElementOf, rootOf } from './element.js';

/** The elements farther out are left out. */
const maxDepth = 40;
/** The letters of an id, or of a class attribute, that are kept. */
const maxLetters = 200;

/** Where an element stands in its document; around a shadow root is its host. */
export function pathTo(element: Element): ElementPath {
  const path: (readonly [string, string, string])[] = [];
  for (let at: Element | null = element; at && path.length < maxDepth; at = outerOf(at))
    path.unshift([localNameOf(at), words(at, 'id'), words(at, 'class')]);
  return path;
}

function outerOf(element: Element): Element | null {
  const parent = parentElementOf(element);
  if (parent) return parent;
  const root = rootOf(element);
  return root instanceof ShadowRoot ? root.host : null;
}

/** A value with single spaces; words that reach beyond the limit are left out. */
function words(element: Element, attribute: string): string {
  const value = (attributeOf(element, attribute) ?? '').trim().replace(/\s+/g, ' ');
  return value.length <= maxLetters ? value : value.slice(0, maxLetters).replace(/\S*$/, '').trim();
}
