import type { Run } from './session.js';

/**
 * When a page could be used, in milliseconds since the navigation began: when it was interactive and its largest
 * content was painted; where neither is known, when it was loaded.
 */
export function usableAt({ markers }: Pick<Run, 'markers'>): number | null {
  const { interactive, largestContentfulPaint, load } = markers;
  if (interactive === null || largestContentfulPaint === null)
    return interactive ?? largestContentfulPaint ?? load;
  return Math.max(interactive, largestContentfulPaint);
}
