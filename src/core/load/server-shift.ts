import type { Change } from './comparison.js';
import type { MarkerName } from './markers.js';

/** A change of the server itself, and the markers of the page that moved with it. */
export interface ServerShift {
  /** Milliseconds by which the first byte came later; negative for earlier. */
  readonly difference: number;
  /** Markers that moved by as much, give or take. */
  readonly moved: readonly MarkerName[];
}

/** Markers that cannot come before the document does. */
const behind = [
  'firstPaint',
  'firstContentfulPaint',
  'largestContentfulPaint',
  'domContentLoaded',
  'load',
] as const satisfies readonly MarkerName[];

/** A marker moved with the server if it moved by so much more or less: milliseconds, and part of the server's change. */
const tolerance = { time: 20, share: 0.25 } as const;

/**
 * Whether the server was slower or faster, as the runs show by their time to first byte: then the paints that moved by as
 * much say nothing of the page.
 *
 * @returns `null` where the runs do not show it
 */
export function serverShift(markers: Readonly<Record<MarkerName, Change>>): ServerShift | null {
  const { verdict, difference } = markers.ttfb;
  if (difference === null || (verdict !== 'less' && verdict !== 'more')) return null;
  const room = Math.max(tolerance.time, tolerance.share * Math.abs(difference));
  const moved = behind.filter((name) => {
    const change = markers[name].difference;
    const isSame = change !== null && Math.sign(change) === Math.sign(difference);
    return isSame && Math.abs(change - difference) <= room;
  });
  return { difference, moved };
}
