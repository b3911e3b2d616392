import type { Size } from '../../core/base/size.js';

/**
 * What elements say of themselves, read past the fields of forms: a form with `<input name="children">` shows that field as
 * its `children` (HTML, section 4.10.3: named properties of a form override its own), in this world, too.
 */
function reader<Of extends object, Name extends keyof Of>(
  prototype: Of,
  name: Name,
): (of: Of) => Of[Name] {
  return (of) => Reflect.get(prototype, name, of);
}

export const idOf = reader(Element.prototype, 'id');
export const localNameOf = reader(Element.prototype, 'localName');
export const tagNameOf = reader(Element.prototype, 'tagName');
export const classListOf = reader(Element.prototype, 'classList');
export const attributesOf = reader(Element.prototype, 'attributes');
export const childrenOf = reader(Element.prototype, 'children');
export const shadowRootOf = reader(Element.prototype, 'shadowRoot');
export const parentElementOf = reader(Node.prototype, 'parentElement');
export const documentOf = reader(Node.prototype, 'ownerDocument');
export const isConnected = reader(Node.prototype, 'isConnected');
export const previousOf = reader(Node.prototype, 'previousSibling');
export const nextOf = reader(Node.prototype, 'nextSibling');

const offsetWidthOf = reader(HTMLElement.prototype, 'offsetWidth');
const offsetHeightOf = reader(HTMLElement.prototype, 'offsetHeight');

/** The size of an element's border box before transforms, in whole CSS pixels. */
export function laidOutSizeOf(element: HTMLElement): Size {
  return { width: offsetWidthOf(element), height: offsetHeightOf(element) };
}

/** Where an element is in the window, transforms applied, in CSS pixels. */
export function rectOf(element: Element): DOMRect {
  return Element.prototype.getBoundingClientRect.call(element);
}

export function attributeOf(element: Element, name: string): string | null {
  return Element.prototype.getAttribute.call(element, name);
}

export function rootOf(element: Element): Node {
  return Node.prototype.getRootNode.call(element);
}

export function closestTo(element: Element, selector: string): Element | null {
  return Element.prototype.closest.call(element, selector);
}

export function isWithin(node: Node, outer: Node): boolean {
  return Node.prototype.contains.call(outer, node);
}

/** Whether a node begins before another one in the document. */
export function isBefore(node: Node, other: Node): boolean {
  return (
    (Node.prototype.compareDocumentPosition.call(other, node) &
      Node.DOCUMENT_POSITION_PRECEDING) !==
    0
  );
}
