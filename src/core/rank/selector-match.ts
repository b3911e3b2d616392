import { compile } from 'css-select';
import { SelectorType, isTraversal, parse } from 'css-what';
import type { Selector } from 'css-what';
import { Element } from 'domhandler';
import type { PlacedImage } from '../findings/image/image-case.js';
import type { ElementMarkup } from '../slots/element-markup.js';
import type { ElementPath } from '../slots/element-path.js';

const pseudoElement = /::(?:before|after|marker)$/;

/** What a survey can tell of a selector. */
export interface SelectorMatcher {
  readonly matches: (placed: PlacedImage) => boolean;
  /** The first part of the selector that it cannot tell; `null` where it can tell all of them. */
  readonly unknown: string | null;
}

/**
 * Whether a selector, as a person writes one, means the element of a placement. A survey keeps the names, ids and classes of the
 * elements around it, and all attributes of an `<img>` itself.
 */
export function selectorMatcher(text: string): SelectorMatcher {
  const pseudo = pseudoElement.exec(text)?.[0] ?? '';
  const own = text.slice(0, text.length - pseudo.length);
  try {
    const unknown = unknownIn(parse(own));
    if (unknown !== null) return { matches: () => false, unknown };
    const isMeant = compile<Element, Element>(own);
    const known = new Map<ElementPath, Map<ElementMarkup | null, boolean>>();
    const matches = ({ path, element, selector }: PlacedImage) => {
      if (path.length === 0 || !selector.endsWith(pseudo)) return false;
      const ofPath = known.get(path) ?? new Map<ElementMarkup | null, boolean>();
      known.set(path, ofPath);
      const said = ofPath.get(element) ?? isMeant(elementAt(path, element));
      ofPath.set(element, said);
      return said;
    };
    return { matches, unknown: null };
  } catch {
    // It is no selector.
    return { matches: () => false, unknown: null };
  }
}

/** Attributes that are kept of every element. */
const keptAttributes = new Set(['id', 'class']);
/** Pseudo-classes that are made of other selectors. */
const composed = new Set(['is', 'where', 'matches', 'not']);

/**
 * The first part of a selector that asks for what is not kept: siblings, places among them, states, attributes.
 *
 * @param isOuter whether it is about an element around the one that is meant
 */
function unknownIn(alternatives: readonly (readonly Selector[])[], isOuter = false): string | null {
  for (const parts of alternatives) {
    const last = parts.findLastIndex(isTraversal);
    for (const [at, part] of parts.entries()) {
      const isAround = isOuter || at < last;
      if (part.type === SelectorType.Adjacent) return '+';
      if (part.type === SelectorType.Sibling) return '~';
      if (part.type === SelectorType.Attribute && isAround && !keptAttributes.has(part.name))
        return `[${part.name}]`;
      if (part.type !== SelectorType.Pseudo) continue;
      if (!composed.has(part.name) || !Array.isArray(part.data)) return `:${part.name}`;
      const within = unknownIn(part.data, isAround);
      if (within !== null) return within;
    }
  }
  return null;
}

/** The element at the end of a path, within those around it. */
function elementAt(path: ElementPath, markup: ElementMarkup | null): Element {
  let at: Element | null = null;
  for (const [name, id, classes] of path) {
    const attributes = { ...(id !== '' && { id }), ...(classes !== '' && { class: classes }) };
    const inner: Element = new Element(name, attributes);
    inner.parent = at;
    at?.children.push(inner);
    at = inner;
  }
  Object.assign(at!.attribs, Object.fromEntries(markup?.attributes ?? []));
  return at!;
}

/** A text that was cut in the middle when it was printed (`#post…img`), as a test of whole ones; `null` if it was not. */
export function cutMatcher(text: string): ((whole: string) => boolean) | null {
  if (!text.includes('…')) return null;
  const parts = text.split('…').map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const pattern = new RegExp(`(?:^|/)${parts.join('.*')}$`, 's');
  return (whole) => pattern.test(whole);
}
