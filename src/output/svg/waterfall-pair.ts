import type { Markers } from '../../core/load/markers.js';
import type { PageRequest } from '../../core/load/request.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import { lengthOf } from '../../core/load/request-view.js';
import type { ChosenRequests } from '../../core/load/request-view.js';
import { shortChange } from '../words/change.js';
import { chartHead, chartPage, maxRows, pageTop, requestChart } from './request-chart.js';
import { text } from './shapes.js';

/** One of two loads that are set against each other. */
export interface PairedLoad {
  readonly label: string;
  readonly markers: Markers;
  readonly chosen: ChosenRequests;
}

export interface WaterfallPair {
  readonly title: string;
  readonly subtitle: string;
  readonly before: PairedLoad;
  readonly after: PairedLoad;
  /** What became of each request. */
  readonly changes: readonly RequestChange[];
}

/** Two loads one above the other on one time axis, with what became of each request. */
export function waterfallPairSvg({
  title,
  subtitle,
  before,
  after,
  changes,
}: WaterfallPair): string {
  const sides = [before, after];
  const most = Math.floor(maxRows / 2);
  const length =
    Math.max(...sides.map(({ chosen, markers }) => lengthOf(chosen.rows, markers.load))) * 1.02;
  const notes = new Map<PageRequest, string>();
  for (const change of changes) {
    const words = shortChange(change);
    if (words === '') continue;
    if (change.after) notes.set(change.after, words);
    else if (change.before) notes.set(change.before, words);
  }
  let top = pageTop;
  const parts = sides.flatMap(({ label, markers, chosen }) => {
    const rows = chosen.rows.slice(0, most);
    const chart = requestChart({ markers, rows, length, top: top + 26 + chartHead, notes });
    const heading = text(20, top + 26, label, 'font-size="14" font-weight="600"');
    top = chart.bottom + 8;
    return [heading, ...chart.parts];
  });
  const leftOut = sides.reduce(
    (sum, { chosen }) => sum + chosen.left.count + Math.max(0, chosen.rows.length - most),
    0,
  );
  return chartPage({ title, subtitle }, parts, top, leftOut);
}
