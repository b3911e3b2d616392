import { meetingOf } from './lines.js';
import type { Line } from './lines.js';

/** A straight piece of a slot curve: the slot is `a × viewport width + b` wide, in CSS pixels. */
export interface CurvePiece {
  /** First and last viewport width that the piece holds for, in CSS pixels. */
  readonly from: number;
  readonly to: number;
  readonly a: number;
  readonly b: number;
}

/** The width of a slot at one viewport width; `null` where it is not shown. */
export interface CurveSample {
  readonly viewport: number;
  readonly width: number | null;
}

/** The largest distance of a piece from the measurements, in CSS pixels. */
export const curveTolerance = 0.5;

/**
 * The fewest straight pieces that are right to half a pixel at every sample.
 *
 * Each piece is made as long as any line allows, from left to right, which no other way of cutting can
 * beat in number. A line within ε of all samples of a piece exists exactly when the slopes that each
 * pair of samples allows have one in common. Widths at which the slot is not shown belong to no piece.
 *
 * @param samples in ascending order of their viewport widths
 */
export function fitSlotCurve(samples: readonly CurveSample[]): CurvePiece[] {
  const runs: Point[][] = [[]];
  for (const { viewport, width } of samples)
    if (width === null) runs.push([]);
    else runs.at(-1)!.push({ x: viewport, y: width });
  return runs.flatMap((run) => joinUp(settleCuts(cutGreedily(run)).map(lineThrough)));
}

/**
 * Pieces that follow one another without a gap: between the last measurement of one and the first of the next, they change
 * over where their lines meet, or as near to that as it goes.
 */
function joinUp(pieces: readonly CurvePiece[]): CurvePiece[] {
  const ends = pieces.map((piece, index) => {
    const next = pieces[index + 1];
    const meeting = next && meetingOf(lineOf(piece), lineOf(next));
    if (meeting === undefined) return piece.to;
    return Math.min(next!.from - 1, Math.max(piece.to, Math.floor(meeting)));
  });
  return pieces.map((piece, index) => ({
    ...piece,
    from: index === 0 ? piece.from : ends[index - 1]! + 1,
    to: ends[index]!,
  }));
}

function lineOf({ a, b }: CurvePiece): Line {
  return { slope: a, base: b };
}

/** The slot's width at a viewport width; `null` where it is not shown. */
export function slotWidthAt(pieces: readonly CurvePiece[], viewport: number): number | null {
  const piece = pieces.find(({ from, to }) => viewport >= from && viewport <= to);
  return piece ? piece.a * viewport + piece.b : null;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

/** The slopes that a line within the tolerance of all points may have, when there is one. */
interface Slopes {
  readonly least: number;
  readonly most: number;
}

const anySlope: Slopes = { least: -Infinity, most: Infinity };

/** Points cut into the fewest groups through each of which a line goes. */
function cutGreedily(points: readonly Point[]): Point[][] {
  const groups: Point[][] = [];
  let slopes = anySlope;
  for (const point of points) {
    const group = groups.at(-1);
    const narrower = group && narrow(slopes, group, point);
    if (narrower) group.push(point);
    else groups.push([point]);
    slopes = narrower ?? anySlope;
  }
  return groups;
}

/** The slopes that are left when a point joins a group; `undefined` when none are. */
function narrow(
  { least, most }: Slopes,
  group: readonly Point[],
  point: Point,
): Slopes | undefined {
  let [low, high] = [least, most];
  for (const { x, y } of group) {
    const run = point.x - x;
    const slack = (2 * curveTolerance) / Math.abs(run);
    const slope = (point.y - y) / run;
    low = Math.max(low, slope - slack);
    high = Math.min(high, slope + slack);
  }
  return low <= high ? { least: low, most: high } : undefined;
}

/** The most points that a group gives back to the next one. */
const maxGivenBack = 4;

/**
 * Greedy cutting lets a group run a little into the next one, as far as the tolerance allows. Each cut
 * is moved back to where the two lines fit best, which leaves the number of groups as it is.
 */
function settleCuts(groups: Point[][]): Point[][] {
  for (let index = 0; index + 1 < groups.length; index++) {
    const both = [...groups[index]!, ...groups[index + 1]!];
    const last = groups[index]!.length;
    let best = { cut: last, spread: Infinity };
    for (let cut = last; cut >= Math.max(1, last - maxGivenBack); cut--) {
      const [left, right] = [both.slice(0, cut), both.slice(cut)];
      if (!slopesOf(right)) break;
      const spread = spreadOf(left) + spreadOf(right);
      if (spread < best.spread - 1e-9) best = { cut, spread };
    }
    groups[index] = both.slice(0, best.cut);
    groups[index + 1] = both.slice(best.cut);
  }
  return groups;
}

function slopesOf(points: readonly Point[]): Slopes | undefined {
  let slopes: Slopes | undefined = anySlope;
  for (let index = 1; slopes && index < points.length; index++)
    slopes = narrow(slopes, points.slice(0, index), points[index]!);
  return slopes;
}

/** How far apart the points lie from the line that is drawn through them. */
function spreadOf(points: readonly Point[]): number {
  const { a } = lineThrough(points);
  const rests = points.map(({ x, y }) => y - a * x);
  return Math.max(...rests) - Math.min(...rests);
}

/** Slopes that style sheets are written in, tried before any other. */
const plainSlopes = [0, 1, 1 / 2, 1 / 3, 2 / 3, 1 / 4, 3 / 4, 1 / 5, 2 / 5, 3 / 5, 4 / 5, 0.9, 0.8];

/** The plainest line that goes through a group of points. */
function lineThrough(points: readonly Point[]): CurvePiece {
  const from = points[0]!.x;
  const to = points.at(-1)!.x;
  const { least, most } = slopesOf(points) ?? anySlope;
  const a = points.length === 1 ? 0 : slopeWithin(least, most);
  // Half a pixel either way is allowed; the middle of what fits is the best of them.
  const rests = points.map(({ x, y }) => y - a * x);
  const b = (Math.min(...rests) + Math.max(...rests)) / 2;
  // Never -0, which would be another number in the eyes of some readers.
  const whole = Math.round(b) || 0;
  const wholeFits = rests.every((rest) => Math.abs(rest - whole) <= curveTolerance / 2);
  return { from, to, a, b: wholeFits ? whole : b };
}

function slopeWithin(least: number, most: number): number {
  const middle = (least + most) / 2;
  const plain = plainSlopes.filter((slope) => slope >= least && slope <= most);
  // Of several that fit, a short piece allows many: the one nearest to the middle is meant.
  const [nearest] = plain.sort((x, y) => Math.abs(x - middle) - Math.abs(y - middle));
  if (nearest !== undefined) return nearest;
  const rounded = Math.round(middle * 1000) / 1000;
  return rounded >= least && rounded <= most ? rounded : middle;
}
