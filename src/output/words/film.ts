import { unfinishedTime, visuallyCompleteAt } from '../../core/pixels/film.js';
import type { Film } from '../../core/pixels/film.js';
import { formatTime } from './units.js';

/** The summary of a film: `visually complete at 1.24 s, unfinished for 640 ms`. */
export function filmWords({ frames }: Film): string {
  const complete = formatTime(visuallyCompleteAt(frames) ?? 0);
  const unfinished = formatTime(unfinishedTime(frames) ?? 0);
  return `visually complete at ${complete}, unfinished for ${unfinished}`;
}

/** Up to when a film is shown, in milliseconds: until nothing more changes. */
export function filmEnd({ frames }: Film): number {
  return Math.max(1, visuallyCompleteAt(frames) ?? 0);
}
