import { plot } from 'asciichart';
import { slotWidthAt } from '../../core/slots/slot-curve.js';
import type { CurvePiece } from '../../core/slots/slot-curve.js';
import type { View } from '../../core/visitors/view.js';
import { plainText } from '../words/plain-text.js';

/** Rows of the chart, and columns of it that labels take. */
const height = 8;
const margin = 10;

/**
 * A slot curve as lines of text: the width of the viewport to the right, the width of the slot upwards, the views that
 * were measured under it.
 */
export function drawSlotCurve(
  pieces: readonly CurvePiece[],
  views: readonly View[],
  width: number,
): string {
  const from = pieces[0]!.from;
  const to = pieces.at(-1)!.to;
  const columns = Math.max(20, Math.min(100, width - margin - 2));
  const viewportAt = (column: number) => from + ((to - from) * column) / (columns - 1);
  const heights = Array.from(
    { length: columns },
    (_, column) => slotWidthAt(pieces, Math.round(viewportAt(column))) ?? 0,
  );
  const most = Math.max(...heights, 1);
  const chart = plot(heights, {
    height,
    min: 0,
    max: most,
    format: (value: number) => `${Math.round(value)} px`.padStart(margin - 3),
  });
  const columnOf = (viewport: number) =>
    margin - 1 + Math.round(((viewport - from) / (to - from)) * (columns - 1));
  const ends = labelled([from, to].map((end) => [columnOf(end), String(end)]));
  const named = views
    .filter((view) => view.width >= from && view.width <= to)
    .map((view) => [columnOf(view.width), `↑ ${plainText(view.name)} ${view.width}`] as const);
  return [chart, ends, labelled(named)].join('\n');
}

/** A line of labels at their columns; one that has no room is left out. */
function labelled(labels: readonly (readonly [column: number, text: string])[]): string {
  return labels.reduce(
    (line, [column, text]) => (line.length < column ? line.padEnd(column) + text : line),
    '',
  );
}
