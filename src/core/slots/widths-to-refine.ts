import { meetingOf } from './lines.js';
import type { Line } from './lines.js';
import { curveTolerance } from './slot-curve.js';
import type { CurveSample } from './slot-curve.js';

/**
 * Viewport widths between two samples at which the curve should be measured as well: of every gap that a straight line
 * from its neighbours does not explain, or at whose ends the slot appears or disappears, the middle, and where the lines
 * on both sides of it meet.
 *
 * @param samples in ascending order of their viewport widths
 * @returns whole widths in ascending order; none when the samples tell the whole curve
 */
export function widthsToRefine(samples: readonly CurveSample[]): number[] {
  const widths = new Set<number>();
  for (let index = 1; index < samples.length; index++) {
    const left = samples[index - 1]!;
    const right = samples[index]!;
    if (right.viewport - left.viewport <= 1) continue;
    if (isStraight(samples, index)) continue;
    const within = (width: number) => width > left.viewport && width < right.viewport;
    const candidates = [Math.floor((left.viewport + right.viewport) / 2)];
    const bend = meetingOf(
      lineBetween(samples[index - 2], left),
      lineBetween(right, samples[index + 1]),
    );
    if (bend !== undefined) candidates.push(Math.floor(bend), Math.floor(bend) + 1);
    for (const width of candidates.filter(within)) widths.add(width);
  }
  return [...widths].sort((a, b) => a - b);
}

function lineBetween(
  left: CurveSample | undefined,
  right: CurveSample | undefined,
): Line | undefined {
  if (!left || !right || left.width === null || right.width === null) return undefined;
  const slope = (right.width - left.width) / (right.viewport - left.viewport);
  return { slope, base: left.width - slope * left.viewport };
}

/**
 * Whether the gap before `index` is as straight as the gaps on either side. A gap of one pixel is a place where the curve
 * may jump, which says nothing of its neighbours: it counts only where there is no other.
 */
function isStraight(samples: readonly CurveSample[], index: number): boolean {
  const [before, left, right, after] = [-2, -1, 0, 1].map((step) => samples[index + step]);
  if (left!.width === null || right!.width === null) return left!.width === right!.width;
  const bends = [
    { from: before, to: left, value: bend(before, left, right) },
    { from: right, to: after, value: bend(left, right, after) },
  ].flatMap(({ from, to, value }) =>
    value === undefined ? [] : { gap: to!.viewport - from!.viewport, value },
  );
  const telling = bends.filter(({ gap }) => gap > 1);
  return (telling.length > 0 ? telling : bends).every(
    ({ value }) => Math.abs(value) <= curveTolerance,
  );
}

/** How far the middle one of three samples lies from the line between the others. */
function bend(
  first: CurveSample | undefined,
  middle: CurveSample | undefined,
  last: CurveSample | undefined,
): number | undefined {
  if (!first || !middle || !last) return undefined;
  if (first.width === null || middle.width === null || last.width === null) return undefined;
  const share = (middle.viewport - first.viewport) / (last.viewport - first.viewport);
  return middle.width - (first.width + (last.width - first.width) * share);
}
