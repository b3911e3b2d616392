import { lengthOf } from '../../core/load/request-view.js';
import type { ChosenRequests } from '../../core/load/request-view.js';
import type { Markers } from '../../core/load/markers.js';
import { chartHead, chartPage, maxRows, pageTop, requestChart } from './request-chart.js';

/** What a picture of a load shows. */
export interface WaterfallPicture {
  readonly title: string;
  /** Conditions, or where it comes from. */
  readonly subtitle: string;
  readonly markers: Markers;
  readonly chosen: ChosenRequests;
}

/**
 * A load as an SVG picture: one row a request, its bar cut into phases, the markers as lines, type, size and end
 * beside it.
 */
export function waterfallSvg({ title, subtitle, markers, chosen }: WaterfallPicture): string {
  const rows = chosen.rows.slice(0, maxRows);
  const length = lengthOf(rows, markers.load) * 1.02;
  const { parts, bottom } = requestChart({ markers, rows, length, top: pageTop + chartHead });
  const leftOut = chosen.left.count + chosen.rows.length - rows.length;
  return chartPage({ title, subtitle }, parts, bottom, leftOut);
}
