/** Markers by which a trial is judged, and on which it depends how many loads are made. */
export const decidingMarkers = ['largestContentfulPaint', 'load'] as const;
