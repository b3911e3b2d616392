import type { Size } from '../../core/base/size.js';
import { noteNames } from './rule-use.js';
import { canWait, drawn, rest } from './waiting.js';

/** The most screens that an endless page is scrolled. */
const maxSteps = 40;

/** The whole page, in CSS pixels; nothing where a script has taken the document away. */
export function pageSize(): Size {
  const root = document.documentElement as Element | null;
  return { width: root?.scrollWidth ?? 0, height: root?.scrollHeight ?? 0 };
}

/** When the page was first scrolled, in milliseconds since the navigation began. */
export let scrolledAt = Infinity;

/**
 * Scrolls to the end in steps of a screen, so that lazy images are asked for, and back to the top.
 *
 * @param pause milliseconds that scripts are given at each step
 * @param pauseAtEnds milliseconds that they are given at the end, and back at the top
 */
export async function scrollThrough(pause: number, pauseAtEnds: number): Promise<void> {
  noteNames();
  if (pageSize().height <= innerHeight) return;
  scrolledAt = performance.now();
  for (let step = 1; step <= maxSteps; step++) {
    const top = step * innerHeight;
    scrollTo({ top, behavior: 'instant' });
    const isLast = () => top >= pageSize().height - innerHeight;
    await heard(isLast() ? pauseAtEnds : pause);
    if (isLast()) break;
  }
  noteNames();
  scrollTo({ top: 0, behavior: 'instant' });
  await heard(pauseAtEnds);
}

/** Scripts hear of it when the page is drawn, which takes its time on a busy machine; theirs begins then. */
async function heard(pause: number): Promise<void> {
  await drawn();
  if (pause > 0) await rest(pause);
}

/** Waits until every image that has arrived can be drawn, at most `limit` milliseconds. */
export async function decodeImages(limit: number): Promise<void> {
  const there = [...document.images].filter((image) => image.complete && image.naturalWidth > 0);
  const decoded = there.map((image) => image.decode().catch(() => undefined));
  await Promise.race([Promise.all(decoded), rest(limit)]);
  await drawn();
}

/**
 * Has the page fetch every image that it would fetch when it is scrolled to, and draw none without its pixels: on a busy
 * machine it may not notice the one, and do the other.
 */
export function hurryImages(): void {
  for (const image of document.images) {
    if (image.loading === 'lazy') image.loading = 'eager';
    image.decoding = 'sync';
  }
}

/** Waits until every image has arrived or failed, at most `limit` milliseconds; or says whether they have, where it cannot wait. */
export async function settleImages(limit: number): Promise<boolean> {
  const end = performance.now() + limit;
  // One that has only just been made eager has no current source yet.
  const isAsked = (image: HTMLImageElement) =>
    image.currentSrc !== '' || (image.loading !== 'lazy' && image.matches('[src], [srcset]'));
  const waiting = () => [...document.images].some((image) => !image.complete && isAsked(image));
  while (waiting()) {
    if (!canWait() || performance.now() > end) return false;
    await rest(50);
  }
  return true;
}
