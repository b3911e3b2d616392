import { laidOutSizeOf, rectOf } from './element.js';
import type { Size } from '../../core/base/size.js';
import type { ProbedPlacement, Spot } from './probed.js';

type Edge = 'border-box' | 'padding-box' | 'content-box';

/** The box of an element on the screen, transforms applied, up to one of its edges. */
export function boxOf({ element, pseudo, style }: Spot, edge: Edge): Size {
  if (pseudo) return pseudoBox(style, edge);
  const { width, height } = rectOf(element);
  const inset = (sides: readonly [string, string]) => insets(style, sides, edge);
  const laidOut = element instanceof HTMLElement ? laidOutSizeOf(element) : { width, height };
  return {
    width: inside(width, laidOut.width, inset(['left', 'right'])),
    height: inside(height, laidOut.height, inset(['top', 'bottom'])),
  };
}

/** Whether a spot has a box that is not hidden. */
export function isShown({ element, pseudo, style }: Spot): boolean {
  const { width, height } = rectOf(element);
  if (pseudo && pseudo !== '::marker')
    return style.display !== 'none' && style.visibility === 'visible';
  return width > 0 && height > 0 && style.visibility === 'visible';
}

/** Where a frame lies in the first screen, and how large that screen is, in CSS pixels. */
export interface FirstScreen {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Whether any part of an element is in the first screen while the page is scrolled to its top. */
export function inFirstScreen(element: Element, screen: FirstScreen): boolean {
  const box = rectOf(element);
  if (box.width === 0 || box.height === 0) return false;
  const up = box.top + scrollY + screen.top;
  const left = box.left + screen.left;
  return up < screen.height && up + box.height > 0 && left < screen.width && left + box.width > 0;
}

/** Where an element stands on the page, in whole CSS pixels. */
export function boxOnPage(element: Element, screen: FirstScreen): ProbedPlacement['box'] {
  const { left, top, width, height } = rectOf(element);
  return {
    left: Math.round(left + scrollX + screen.left),
    top: Math.round(top + scrollY + screen.top),
    width: Math.round(width),
    height: Math.round(height),
  };
}

/** Whether an element lies to the left or right of the window, out of sight. */
export function isAside(element: Element): boolean {
  const { left, right, width } = rectOf(element);
  return width > 0 && (left >= innerWidth || right <= 0);
}

/** A length in pixels; 0 for anything else. */
export function pixels(length: string): number {
  return Number.parseFloat(length) || 0;
}

/** The box of a pseudo-element, which only its style knows. */
function pseudoBox(style: CSSStyleDeclaration, edge: Edge): Size {
  const sides = (axis: readonly [string, string], length: string) => {
    const border = insets(style, axis, 'padding-box');
    const padding = insets(style, axis, 'content-box') - border;
    const content =
      style.boxSizing === 'border-box' ? pixels(length) - border - padding : pixels(length);
    const added = edge === 'content-box' ? 0 : edge === 'padding-box' ? padding : padding + border;
    return Math.max(0, content + added);
  };
  return {
    width: sides(['left', 'right'], style.width),
    height: sides(['top', 'bottom'], style.height),
  };
}

function insets(style: CSSStyleDeclaration, sides: readonly [string, string], edge: Edge): number {
  if (edge === 'border-box') return 0;
  return sides.reduce((sum, side) => {
    const border = pixels(style.getPropertyValue(`border-${side}-width`));
    const padding = edge === 'content-box' ? pixels(style.getPropertyValue(`padding-${side}`)) : 0;
    return sum + border + padding;
  }, 0);
}

/** One side of an inner box; the insets are scaled as the transform has scaled the whole. */
function inside(drawn: number, laidOut: number, inset: number): number {
  const factor = laidOut > 0 ? drawn / laidOut : 1;
  return Math.max(0, drawn - inset * factor);
}
