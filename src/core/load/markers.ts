import { record } from '../base/record.js';

/** The moments and sums that a load is judged by, in the order in which they are shown. */
export const markerNames = [
  'ttfb',
  'firstPaint',
  'firstContentfulPaint',
  'largestContentfulPaint',
  'domContentLoaded',
  'load',
  'interactive',
  'blockingTime',
  'layoutShift',
  'lastByte',
  'quiet',
] as const;
export type MarkerName = (typeof markerNames)[number];

/**
 * What one load (or the median over several) came to: milliseconds since the navigation began, but
 * `layoutShift`, which has no unit. `null` where it was not reached or is not measured.
 *
 * - `ttfb`: first byte of the document's own answer, after its redirects (read off the network)
 * - `firstPaint`, `firstContentfulPaint` (Paint Timing), `largestContentfulPaint` (Largest Contentful Paint)
 * - `domContentLoaded`, `load`: end of the event (Navigation Timing)
 * - `interactive`: the end of the last long task before five seconds of rest (see `interactiveAt`)
 * - `blockingTime`: the part beyond 50 ms of every long task after first contentful paint (Long Tasks)
 * - `layoutShift`: sum of unexpected shifts (Layout Instability), the largest session window
 * - `lastByte`: the end of the last request
 * - `quiet`: the moment after `load` from which the network rested for the quiet window, half a second by default
 */
export type Markers = Readonly<Record<MarkerName, number | null>>;

/** The displayed name of each marker. */
export const markerTitles: Readonly<Record<MarkerName, string>> = {
  ttfb: 'time to first byte',
  firstPaint: 'first paint',
  firstContentfulPaint: 'first contentful paint',
  largestContentfulPaint: 'largest contentful paint',
  domContentLoaded: 'DOMContentLoaded',
  load: 'load',
  interactive: 'interactive',
  blockingTime: 'blocking time',
  layoutShift: 'layout shift',
  lastByte: 'last byte',
  quiet: 'network quiet',
};

/** The markers of a load of which nothing is known. */
export function noMarkers(): Markers {
  return record(markerNames, () => null);
}
