import { unfinishedTime, visuallyCompleteAt } from '../core/pixels/film.js';
import type { Film } from '../core/pixels/film.js';
import { formatTime } from './units.js';

/** What a film comes to: `complete to the eye at 1.24 s, unfinished for 640 ms`. */
export function filmWords({ frames }: Film): string {
  const complete = formatTime(visuallyCompleteAt(frames) ?? 0);
  const unfinished = formatTime(unfinishedTime(frames) ?? 0);
  return `complete to the eye at ${complete}, unfinished for ${unfinished}`;
}

/** Up to where a film is told, in milliseconds: until nothing more is to be seen. */
export function filmEnd({ frames }: Film): number {
  return Math.max(1, visuallyCompleteAt(frames) ?? 0);
}
