import type { MarkerName, Markers } from '../../core/load/markers.js';
import { markerLines } from './request.js';

/** A marker in a waterfall: a line, and a letter above it. */
export interface MarkerSign {
  readonly name: MarkerName;
  readonly letter: string;
  readonly title: string;
  /** Milliseconds. */
  readonly time: number;
  /** Where the line stands, in pixels. */
  readonly at: number;
  /** Where the middle of the letter stands. */
  readonly letterAt: number;
}

/** Pixels between the middles of two letters. */
const letterGap = 12;

/**
 * The markers of a load from left to right; letters that would overlap are set side by side.
 *
 * @param x the place of a moment, in pixels
 */
export function markerSigns(markers: Markers, x: (time: number) => number): readonly MarkerSign[] {
  let free = -Infinity;
  return markerLines
    .flatMap(([name, letter, title]) => {
      const time = markers[name];
      return time === null ? [] : [{ name, letter, title, time, at: x(time) }];
    })
    .sort((a, b) => a.at - b.at)
    .map((sign) => {
      const letterAt = Math.max(sign.at, free);
      free = letterAt + letterGap;
      return { ...sign, letterAt };
    });
}
