import { nextOf, parentElementOf, previousOf, rectOf } from './element.js';
import { differs } from '../../core/refit/markup/markup-try.js';
import type { Region } from '../../core/base/region.js';

/** The most images of a document that are held back, and the most of them that are looked at one by one. */
const maxImages = 500;
const maxAlone = 60;

/** No address at all: for any that is one, a copy would ask the network, or the page's policy of what may be loaded. */
const nothing = 'http://';

const asleep = document.implementation.createHTMLDocument();

/**
 * Whether the page is laid out before the file of an image arrives as it is afterwards: measured with copies in place of the
 * images whose files never come. The browser lays them out by attributes and style sheets alone, and nothing is drawn in
 * between, so that nobody sees them.
 *
 * @returns `null` for what was not measured: what has no box, moves by itself, or is one too many
 */
export function layoutsKnown(images: readonly Element[]): (boolean | null)[] {
  const held = images.map((image, index) =>
    index < maxImages && image instanceof HTMLImageElement ? heldBack(image) : null,
  );
  const shown = held.filter((one) => one !== null);
  const boxes = new Map(shown.map((one) => [one, boxOf(one.image)]));
  // All at once costs two layouts; only those that change are worth two of their own.
  for (const { old, copy } of shown) old.replaceWith(copy);
  const changed = shown.filter((one) => differs(sizeOf(boxes.get(one)!), sizeOf(boxOf(one.held))));
  for (const { old, copy } of shown) copy.replaceWith(old);
  const unmeasured = new Set(changed.slice(maxAlone));
  const jumping = new Set(changed.slice(0, maxAlone).filter(jumps));
  return held.map((one) => (one && !unmeasured.has(one) ? !jumping.has(one) : null));
}

/** An image, and what stands in its place while its file is held back. */
interface HeldBack {
  readonly image: HTMLImageElement;
  /** The image, or the `<picture>` around it. */
  readonly old: Element;
  readonly copy: Element;
  /** The image in the copy. */
  readonly held: HTMLImageElement;
}

function heldBack(image: HTMLImageElement): HeldBack | null {
  const { width, height } = image.getBoundingClientRect();
  if (!image.complete || image.naturalWidth === 0 || width * height === 0) return null;
  const parent = image.parentElement;
  const old = parent?.localName === 'picture' ? parent : image;
  // What is put back begins its animation again.
  if ([image, old].some((one) => getComputedStyle(one).animationName !== 'none')) return null;
  // In a document without a window nothing is loaded: a copy made here would have the file at once.
  const copy = asleep.importNode(old, true);
  const held = copy.localName === 'img' ? (copy as HTMLImageElement) : copy.querySelector('img');
  if (!held) return null;
  for (const source of [held, ...copy.querySelectorAll('source')])
    for (const name of ['src', 'srcset'])
      if (source.hasAttribute(name)) source.setAttribute(name, nothing);
  return { image, old, copy, held };
}

/** Whether anything around an image is elsewhere while its file is held back. */
function jumps({ old, copy }: HeldBack): boolean {
  const around = aroundOf(old);
  const before = around.map((measure) => measure());
  old.replaceWith(copy);
  const after = around.map((measure) => measure());
  copy.replaceWith(old);
  return before.some((box, index) => differs(box, after[index]!));
}

/** Measures the places of what stands beside an element, and the size of the block that it is in. */
function aroundOf(element: Element): (() => Region)[] {
  const found: (() => Region)[] = [];
  for (let inner = element; ;) {
    for (const beside of [previousOf(inner), nextOf(inner)])
      if (beside) found.push(() => placeOf(beside));
    const parent = parentElementOf(inner);
    if (!parent) return found;
    if (!/^(?:inline|contents)$/.test(getComputedStyle(parent).display))
      return [...found, () => sizeOf(boxOf(parent))];
    // A line of text is as high as its letters, whatever stands in it.
    inner = parent;
  }
}

function placeOf(node: Node): Region {
  const range = document.createRange();
  range.selectNode(node);
  return range.getBoundingClientRect();
}

function boxOf(element: Element): Region {
  return rectOf(element);
}

function sizeOf({ width, height }: Region): Region {
  return { left: 0, top: 0, width, height };
}
