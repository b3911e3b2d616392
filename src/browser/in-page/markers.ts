import { rectOf } from './element.js';
import { keptAddress } from '../../core/address/address.js';
import type { Task } from '../../core/load/interactive.js';
import type { LargestContent } from '../../core/load/session.js';
import { entriesOf } from './entries.js';
import type { LayoutShiftEntry } from './entries.js';
import { scrolledAt } from './scroll.js';
import { selectorOf } from './selector.js';
import { canWait, rest } from './waiting.js';

/** The page's own timeline, in milliseconds since the navigation began. */
export interface PageMarkers {
  readonly timeOrigin: number;
  /** When this was read. */
  readonly watched: number;
  readonly firstPaint: number | null;
  readonly firstContentfulPaint: number | null;
  readonly largestContentfulPaint: number | null;
  readonly domContentLoaded: number | null;
  readonly load: number | null;
  readonly blockingTime: number;
  readonly longTasks: readonly Task[];
  readonly largest: LargestContent | null;
  readonly layoutShift: number;
}

interface LargestEntry extends PerformanceEntry {
  /** Square CSS pixels of it in the window. */
  readonly size: number;
  /** Address of the picture; empty for a text. */
  readonly url: string;
  /** `null` when it is no longer in the document. */
  readonly element: Element | null;
}

/** A task longer than this blocks; only what is beyond it counts (Long Tasks API). */
const longTask = 50;

/** Reads the timeline of the page that is loaded. */
export async function markersOf(): Promise<PageMarkers> {
  const [paints, largest, tasks, shifts] = await Promise.all([
    entriesOf('paint'),
    entriesOf('largest-contentful-paint'),
    entriesOf('longtask'),
    entriesOf('layout-shift'),
  ]);
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  const paintOf = (kind: string) => paints.find(({ name }) => name === kind)?.startTime ?? null;
  const firstPaint = paintOf('first-contentful-paint');
  return {
    timeOrigin: performance.timeOrigin,
    watched: performance.now(),
    firstPaint: paintOf('first-paint'),
    firstContentfulPaint: firstPaint,
    largestContentfulPaint: largest.at(-1)?.startTime ?? null,
    domContentLoaded: reached(navigation?.domContentLoadedEventEnd),
    load: reached(navigation?.loadEventEnd),
    blockingTime: tasks
      .filter(({ startTime }) => firstPaint !== null && startTime >= firstPaint)
      .reduce((sum, { duration }) => sum + Math.max(0, duration - longTask), 0),
    longTasks: tasks.map(({ startTime, duration }) => ({
      start: startTime,
      end: startTime + duration,
    })),
    largest: toldOf(largest.at(-1) as LargestEntry | undefined),
    layoutShift: largestWindow(shifts as LayoutShiftEntry[]),
  };
}

function toldOf(entry: LargestEntry | undefined): LargestContent | null {
  if (!entry) return null;
  const { element, url } = entry;
  return {
    selector: element ? selectorOf(element) : '',
    url: url === '' ? null : keptAddress(url),
  };
}

/**
 * The address of the picture that is the largest contentful paint of the first screen; `null` when it is
 * none. The page must have been scrolled back to its top.
 */
export async function largestContent(): Promise<string | null> {
  const began = performance.now();
  for (;;) {
    const seen = await largestSeen();
    const waited = performance.now() - began;
    const isComing = hasPicture(seen?.url ? seen.size : 0) && waited < paintPatience;
    if (!canWait() || !isComing) return seen?.url ? keptAddress(seen.url) : null;
    await rest(50);
  }
}

/** Milliseconds within which even a busy browser reports a paint. */
const paintPatience = 800;

/** Whether a picture that has arrived has a larger part of the first screen: its paint may not have been reported yet. */
function hasPicture(largerThan: number): boolean {
  return [...document.images].some((image) => {
    if (!image.complete || image.naturalWidth === 0) return false;
    const { top, bottom, left, right } = rectOf(image);
    const across = Math.min(right, innerWidth) - Math.max(left, 0);
    const down = Math.min(bottom, innerHeight) - Math.max(top, 0);
    // What is drawn larger than it is counts as large as it is (Largest Contentful Paint, WICG).
    const area = Math.min(across * down, image.naturalWidth * image.naturalHeight);
    return across > 0 && down > 0 && area > largerThan + rounding;
  });
}

/** Square pixels by which the browser and this may differ. */
const rounding = 64;

async function largestSeen(): Promise<LargestEntry | undefined> {
  const entries = (await entriesOf('largest-contentful-paint', 0)) as LargestEntry[];
  // A paint is told of when it was presented, which may be after the page was scrolled; and what is
  // scrolled into view is painted, too.
  const first = ({ startTime, element }: LargestEntry) =>
    startTime <= scrolledAt || (element && rectOf(element).top < innerHeight);
  return entries.findLast(first);
}

function reached(time: number | undefined): number | null {
  return time ? time : null;
}

/**
 * The largest session window of shifts: at most 1 s between two of them, at most 5 s long.
 *
 * Source: Layout Instability (WICG), and the definition of the cumulative score built on it.
 */
function largestWindow(shifts: readonly LayoutShiftEntry[]): number {
  let largest = 0;
  let sum = 0;
  let first = -Infinity;
  let last = -Infinity;
  for (const { startTime, value, hadRecentInput } of shifts) {
    if (hadRecentInput) continue;
    const joins = startTime - last < 1000 && startTime - first < 5000;
    sum = joins ? sum + value : value;
    if (!joins) first = startTime;
    last = startTime;
    largest = Math.max(largest, sum);
  }
  return largest;
}
