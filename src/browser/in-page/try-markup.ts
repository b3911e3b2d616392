import { isConnected, isWithin, rectOf } from './element.js';
import { differs } from '../../core/refit/markup/markup-try.js';
import type { LaidOutImage, MarkupTry, Moved } from '../../core/refit/markup/markup-try.js';
import type { Region } from '../../core/base/region.js';
import { selectorOf } from './selector.js';
import { rest } from './waiting.js';

const maxElements = 20_000;
const maxMoved = 3;

/** All elements of the page, and where they are. */
let layout = new Map<Element, Region>();

/** Adds rules ahead of the page's own, as the first lines of its first style sheet. */
export function adoptRules(text: string): void {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(text);
  document.adoptedStyleSheets = [sheet, ...document.adoptedStyleSheets];
}

/** Waits until an element is there, which a script may make after the page has loaded. */
export async function untilThere(selector: string, limit: number): Promise<void> {
  const end = performance.now() + limit;
  while (!document.querySelector(selector) && performance.now() < end) await rest(50);
}

/** Remembers where everything is. */
export function rememberLayout(): void {
  layout = new Map();
  for (const element of document.querySelectorAll('*')) {
    if (layout.size >= maxElements) return;
    layout.set(element, regionOf(element));
  }
}

/**
 * Elements that are no longer where they were; they are forgotten, because they move by themselves (slides, animations).
 */
export function forgetRestless(): number {
  const restless = movedElements();
  for (const element of restless) layout.delete(element);
  return restless.length;
}

/**
 * Puts markup in the place of an image (and of the `<picture>` around it), waits until its file has arrived, and measures.
 * What holds stays, for the next to be tried beside it; `revert` takes back what does not.
 *
 * @param limit milliseconds
 * @returns `null` if there is no such image
 */
export async function tryMarkup(
  selector: string,
  markup: string,
  limit: number,
): Promise<MarkupTry | null> {
  const image = document.querySelector(selector);
  if (!(image instanceof HTMLImageElement)) return null;
  const parent = image.parentElement;
  const old = parent?.localName === 'picture' ? parent : image;
  const template = document.createElement('template');
  template.innerHTML = markup;
  const fresh = template.content.firstElementChild;
  const img = fresh instanceof HTMLImageElement ? fresh : fresh?.querySelector('img');
  if (!fresh || !img) return null;
  const before = await laidOut(image);
  // Only when it is requested is another matter.
  img.loading = 'eager';
  img.decoding = 'sync';
  old.replaceWith(fresh);
  last = { fresh, old };
  await arrival(img, limit);
  const moved = movedElements()
    .filter((element) => !isWithin(element, fresh))
    .slice(0, maxMoved)
    .map((element): Moved => ({
      selector: selectorOf(element),
      from: layout.get(element)!,
      to: regionOf(element),
    }));
  return { before, after: await laidOut(img), moved };
}

let last: { readonly fresh: Element; readonly old: Element } | undefined;

/** Takes back what was tried last. */
export async function revertMarkup(): Promise<void> {
  if (!last?.fresh.isConnected) return;
  last.fresh.replaceWith(last.old);
  const image = last.old instanceof HTMLImageElement ? last.old : last.old.querySelector('img');
  if (image) await arrival(image, 2_000);
}

function movedElements(): Element[] {
  return [...layout.keys()].filter(
    (element) => isConnected(element) && differs(layout.get(element)!, regionOf(element)),
  );
}

/** Where an element is on the page, in CSS pixels. */
function regionOf(element: Element): Region {
  const { left, top, width, height } = rectOf(element);
  return { left: left + scrollX, top: top + scrollY, width, height };
}

async function laidOut(image: HTMLImageElement): Promise<LaidOutImage> {
  const box = regionOf(image);
  const { clientWidth, clientHeight, naturalWidth, naturalHeight } = image;
  const { objectFit, paddingLeft, paddingRight } = getComputedStyle(image);
  const padding = (Number.parseFloat(paddingLeft) || 0) + (Number.parseFloat(paddingRight) || 0);
  const across = Math.max(0, (clientWidth || box.width) - padding);
  const byHeight = naturalHeight > 0 ? (clientHeight * naturalWidth) / naturalHeight : across;
  const drawnWidth =
    objectFit === 'cover'
      ? Math.max(across, byHeight)
      : objectFit === 'contain'
        ? Math.min(across, byHeight)
        : across;
  const isLoaded = image.complete && naturalWidth > 0;
  const pixels = isLoaded ? await pixelsOf(image.currentSrc) : 0;
  return { box, drawnWidth, url: image.currentSrc, pixels, isLoaded };
}

/** Pixels across of a file that the page has: what an image says of itself is divided by the density of its candidate. */
async function pixelsOf(url: string): Promise<number> {
  const probe = new Image();
  probe.src = url;
  await decoded(probe, 1_000);
  return probe.naturalWidth;
}

/** Waits until an image has arrived or failed, and the page is laid out with it. */
async function arrival(image: HTMLImageElement, limit: number): Promise<void> {
  await decoded(image, limit);
  // Scripts that watch images resize what is around them in their own time.
  await rest(20);
}

async function decoded(image: HTMLImageElement, limit: number): Promise<void> {
  await Promise.race([image.decode().catch(() => undefined), rest(limit)]);
}
