import type { PageRequest } from './request.js';

/** A time in which the page's main thread did nothing else, in milliseconds since the navigation began. */
export interface Task {
  readonly start: number;
  readonly end: number;
}

export interface WatchedLoad {
  readonly firstContentfulPaint: number | null;
  readonly domContentLoaded: number | null;
  /** Tasks of more than 50 ms (Long Tasks). */
  readonly longTasks: readonly Task[];
  readonly requests: readonly Pick<PageRequest, 'method' | 'start' | 'end'>[];
  /** Until when the page was watched. */
  readonly watched: number;
}

/** Milliseconds of rest after which a page counts as interactive. */
export const restWindow = 5_000;
/** The most requests under way during quiet. */
const restingRequests = 2;

/**
 * When a page became interactive: the end of the last long task before the first 5 s, after first contentful paint,
 * in which there was no long task and never more than two GET requests were under way; first contentful paint itself
 * where there was none, and never before DOMContentLoaded. `null` where the page was not seen to come to rest.
 *
 * Source: Time to Interactive, explainer of the WICG.
 */
export function interactiveAt(load: WatchedLoad): number | null {
  const { firstContentfulPaint: paint, domContentLoaded, watched } = load;
  if (paint === null || domContentLoaded === null) return null;
  const busy = [...load.longTasks, ...crowded(load)].sort((a, b) => a.start - b.start);
  let rest = paint;
  for (const { start, end } of busy) {
    if (start - rest >= restWindow) break;
    rest = Math.max(rest, end);
  }
  if (watched - rest < restWindow) return null;
  const before = load.longTasks.filter(({ end }) => end <= rest).map(({ end }) => end);
  return Math.max(paint, domContentLoaded, ...before);
}

/** The times in which more requests were under way than rest allows. */
function crowded({ requests, watched }: WatchedLoad): Task[] {
  const changes = requests
    .filter(({ method }) => method === 'GET')
    .flatMap(({ start, end }) => [
      { at: start, by: 1 },
      { at: end ?? watched, by: -1 },
    ])
    // What ends as another begins makes room for it.
    .sort((a, b) => a.at - b.at || a.by - b.by);
  const times: Task[] = [];
  let open = 0;
  let since: number | null = null;
  for (const { at, by } of changes) {
    open += by;
    if (open > restingRequests) since ??= at;
    else if (since !== null) {
      times.push({ start: since, end: at });
      since = null;
    }
  }
  return times;
}
