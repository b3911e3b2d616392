import type { ElementPath } from '../../core/slots/element-path.js';
import { attributeOf, localNameOf, parentElementOf, rootOf } from './element.js';
import { maxPathLetters } from './limits.js';

/** The elements farther out are left out. */
const maxDepth = 40;
/** The letters of an id, or of a class attribute, that are kept. */
const maxLetters = 200;

/**
 * Tells where elements stand in their documents; around a shadow root is its host. When all that was told has more than
 * `maxPathLetters`, the paths of further elements are empty.
 */
export function pathFinder(): (element: Element) => ElementPath {
  let left = maxPathLetters;
  return (element) => {
    const path: (readonly [string, string, string])[] = [];
    for (let at: Element | null = element; at && path.length < maxDepth; at = outerOf(at))
      path.unshift([localNameOf(at).slice(0, maxLetters), words(at, 'id'), words(at, 'class')]);
    left -= path.flat().join().length;
    return left < 0 ? [] : path;
  };
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
