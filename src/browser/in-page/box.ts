import type { Size } from '../../core/size.js';

/** The content box of an element on the screen: transforms applied, padding and border left out. */
export function slotOf(element: HTMLElement, style: CSSStyleDeclaration): Size {
  const box = element.getBoundingClientRect();
  const insets = (sides: readonly [string, string]) =>
    sides.reduce((sum, side) => {
      const lengths = [`padding-${side}`, `border-${side}-width`];
      return sum + lengths.reduce((all, name) => all + pixels(style.getPropertyValue(name)), 0);
    }, 0);
  return {
    width: content(box.width, element.offsetWidth, insets(['left', 'right'])),
    height: content(box.height, element.offsetHeight, insets(['top', 'bottom'])),
  };
}

/** Whether an element has a box that is not hidden. */
export function isShown(element: Element, style: CSSStyleDeclaration): boolean {
  const { width, height } = element.getBoundingClientRect();
  return width > 0 && height > 0 && style.visibility === 'visible';
}

/** Whether any part of an element is in the window while the page stands at its top. */
export function inFirstScreen(element: Element): boolean {
  const { top, left, right, bottom, width, height } = element.getBoundingClientRect();
  if (width === 0 || height === 0) return false;
  const up = top + scrollY;
  const down = bottom + scrollY;
  return up < innerHeight && down > 0 && left < innerWidth && right > 0;
}

/** One side of the content box; the insets are scaled as the transform has scaled the whole. */
function content(drawn: number, laidOut: number, insets: number): number {
  const factor = laidOut > 0 ? drawn / laidOut : 1;
  return Math.max(0, drawn - insets * factor);
}

function pixels(length: string): number {
  return Number.parseFloat(length) || 0;
}
