/** The moments and sums that a load is judged by, in the order in which they are told. */
export const markerNames = [
  'ttfb',
  'firstContentfulPaint',
  'largestContentfulPaint',
  'domContentLoaded',
  'load',
  'interactive',
  'blockingTime',
  'layoutShift',
  'quiet',
] as const;
export type MarkerName = (typeof markerNames)[number];

/**
 * What one load (or the median over several) came to: milliseconds since the navigation began, but
 * `layoutShift`, which has no unit. `null` where it was not reached or is not measured.
 *
 * - `ttfb`: first byte of the document's own answer, after its redirects (read off the network)
 * - `firstContentfulPaint` (Paint Timing), `largestContentfulPaint` (Largest Contentful Paint)
 * - `domContentLoaded`, `load`: end of the event (Navigation Timing)
 * - `interactive`: not measured in this version, always `null`
 * - `blockingTime`: the part beyond 50 ms of every long task after first contentful paint (Long Tasks)
 * - `layoutShift`: sum of unexpected shifts (Layout Instability), the largest session window
 * - `quiet`: the moment after `load` from which the network rested for half a second
 */
export type Markers = Readonly<Record<MarkerName, number | null>>;

/** How each marker is called in front of people. */
export const markerTitles: Readonly<Record<MarkerName, string>> = {
  ttfb: 'time to first byte',
  firstContentfulPaint: 'first contentful paint',
  largestContentfulPaint: 'largest contentful paint',
  domContentLoaded: 'DOMContentLoaded',
  load: 'load',
  interactive: 'interactive',
  blockingTime: 'blocking time',
  layoutShift: 'layout shift',
  quiet: 'network quiet',
};
