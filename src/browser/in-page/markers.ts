import { keptAddress } from '../../core/address/address.js';
import type { Task } from '../../core/load/interactive.js';
import type { LargestContent } from '../../core/load/session.js';
import { entriesOf } from './entries.js';
import type { LargestEntry, LayoutShiftEntry } from './entries.js';
import { selectorOf } from './selector.js';

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
