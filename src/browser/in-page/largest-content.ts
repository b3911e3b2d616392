import { keptAddress } from '../../core/address/address.js';
import { rectOf } from './element.js';
import { entriesOf } from './entries.js';
import type { LargestEntry } from './entries.js';
import { scrolledAt } from './scroll.js';
import { canWait, rest } from './waiting.js';

/** Milliseconds within which even a busy browser reports a paint. */
const paintPatience = 800;

/**
 * The address of the picture that is the largest contentful paint of the first screen; `null` when it is
 * none. The page must have been scrolled back to its top.
 */
export async function largestContent(): Promise<string | null> {
  const began = performance.now();
  for (;;) {
    const seen = await largestSeen();
    const waited = performance.now() - began;
    const isComing = canWait() && waited < paintPatience && (await hasPicture(seen?.size ?? 0));
    if (!isComing) return seen?.url ? keptAddress(seen.url) : null;
    await rest(50);
  }
}

async function largestSeen(): Promise<LargestEntry | undefined> {
  const entries = (await entriesOf('largest-contentful-paint', 0)) as LargestEntry[];
  // A paint is told of when it was presented, which may be after the page was scrolled; and what is
  // scrolled into view is painted, too.
  const first = ({ startTime, element }: LargestEntry) =>
    startTime <= scrolledAt || (element && rectOf(element).top < innerHeight);
  return entries.findLast(first);
}

/**
 * Whether a picture that has arrived has a larger part of the first screen, in square CSS pixels: its paint may not have
 * been reported yet. What no browser reports must not be taken for it, because it would be waited for in vain.
 */
async function hasPicture(largerThan: number): Promise<boolean> {
  const isLarger = (image: HTMLImageElement, part: DOMRectReadOnly) =>
    // The browser rounds every edge to whole pixels.
    paintedArea(image, part) > largerThan + part.width + part.height;
  const arrived = [...document.images].filter(
    (image) =>
      image.complete &&
      image.naturalWidth > 0 &&
      isLarger(image, inWindow(rectOf(image))) &&
      image.checkVisibility({ opacityProperty: true, visibilityProperty: true }),
  );
  if (arrived.length === 0) return false;
  const parts = await partsInView(arrived);
  return arrived.some((image) => {
    const part = parts.get(image);
    return part !== undefined && !fillsWindow(part) && isLarger(image, part);
  });
}

/** The part of a box that is in the window: what is below it need not be looked at in a frame of its own. */
function inWindow({ left, top, right, bottom }: DOMRectReadOnly): DOMRectReadOnly {
  const [from, above] = [Math.max(left, 0), Math.max(top, 0)];
  const width = Math.max(0, Math.min(right, innerWidth) - from);
  const height = Math.max(0, Math.min(bottom, innerHeight) - above);
  return new DOMRectReadOnly(from, above, width, height);
}

/** What covers the whole window counts as its background (Largest Contentful Paint, WICG). */
function fillsWindow({ width, height }: DOMRectReadOnly): boolean {
  return width >= innerWidth && height >= innerHeight;
}

/** Square CSS pixels of a part of an image that count: what is drawn larger than it is counts as large as it is. */
function paintedArea(image: HTMLImageElement, { width, height }: DOMRectReadOnly): number {
  const { naturalWidth, naturalHeight } = image;
  const natural = naturalWidth * naturalHeight;
  const inside = ['contain', 'scale-down'].includes(getComputedStyle(image).objectFit);
  const box = rectOf(image);
  const scale = Math.min(box.width / naturalWidth, box.height / naturalHeight);
  return Math.min(width * height, natural, inside ? natural * scale ** 2 : Infinity);
}

/** The parts of elements that are in the window and not cut off by what they scroll in. */
function partsInView(elements: readonly Element[]): Promise<Map<Element, DOMRectReadOnly>> {
  const parts = new Map<Element, DOMRectReadOnly>();
  const told = new Promise((resolve) => {
    const observer = new IntersectionObserver((entries) => {
      for (const { target, intersectionRect } of entries) parts.set(target, intersectionRect);
      observer.disconnect();
      resolve(undefined);
    });
    for (const element of elements) observer.observe(element);
  });
  // It is told with the next frame, which may be long in coming where nothing is drawn.
  return Promise.race([told, rest(paintPatience)]).then(() => parts);
}
