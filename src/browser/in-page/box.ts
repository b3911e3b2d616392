import { laidOutSizeOf, rectOf } from './element.js';
import type { Size } from '../../core/base/size.js';
import type { ProbedPlacement, Spot } from './probed.js';

type Edge = 'border-box' | 'padding-box' | 'content-box';

/** The box of an element on the screen, transforms applied, up to one of its edges. */
export function boxOf({ element, pseudo, style }: Spot, edge: Edge): Size {
  if (pseudo) return pseudoBox(style, edge);
  const { width, height } = rectOf(element);
  const inset = insets(style, edge);
  if (inset.width + inset.height === 0) return { width, height };
  const laidOut = element instanceof HTMLElement ? laidOutSizeOf(element) : { width, height };
  return {
    width: inside(width, laidOut.width, inset.width),
    height: inside(height, laidOut.height, inset.height),
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
  const border = insets(style, 'padding-box');
  const whole = insets(style, 'content-box');
  const side = (axis: 'width' | 'height') => {
    const padding = whole[axis] - border[axis];
    const length = pixels(style[axis]);
    const content = style.boxSizing === 'border-box' ? length - whole[axis] : length;
    const added = edge === 'content-box' ? 0 : edge === 'padding-box' ? padding : whole[axis];
    return Math.max(0, content + added);
  };
  return { width: side('width'), height: side('height') };
}

const none: Size = { width: 0, height: 0 };

/** By how much an inner box is smaller than the border box. */
function insets(style: CSSStyleDeclaration, edge: Edge): Size {
  const border = edge === 'border-box' ? none : bothSides(style.borderWidth);
  const padding = edge === 'content-box' ? bothSides(style.padding) : none;
  return { width: border.width + padding.width, height: border.height + padding.height };
}

/** The lengths of opposite sides added up, from a shorthand of one to four (CSS Box Model Module Level 3, section 4.2). */
function bothSides(lengths: string): Size {
  if (lengths === '0px') return none;
  const [top = 0, right = top, bottom = top, left = right] = lengths.split(' ').map(pixels);
  return { width: left + right, height: top + bottom };
}

/** One side of an inner box; the insets are scaled as the transform has scaled the whole. */
function inside(drawn: number, laidOut: number, inset: number): number {
  const factor = laidOut > 0 ? drawn / laidOut : 1;
  return Math.max(0, drawn - inset * factor);
}
