import type { Channel } from '../chromium/channel.js';
import { fitSlotCurve } from '../../core/slots/slot-curve.js';
import type { Breakpoints } from '../../core/slots/breakpoints.js';
import { widthsToRefine } from '../../core/slots/widths-to-refine.js';
import type { CurvePiece, CurveSample } from '../../core/slots/slot-curve.js';
import type { Size } from '../../core/base/size.js';
import { watchesSize } from './listeners.js';
import { SlotMeter } from './slot-meter.js';
import type { PageAndFrames, Widths } from './slot-meter.js';

/** The viewport widths that are swept, in CSS pixels. */
export const sweepRange = { from: 320, to: 2560 } as const;

/** How closely the widths between two breakpoints are measured at first. */
interface Grid {
  /** The widest gap between two measurements, in CSS pixels; infinite where only breakpoints are passed. */
  readonly gap: number;
  /** The fewest parts that what lies between two breakpoints is divided into, unless they become narrower than `near`. */
  readonly parts: number;
}

const near = 64;

/**
 * Where all breakpoints are known, a slot changes from one to the next without a leap, or its boxes wrap: either shows at a
 * distance, as no straight line, and is looked at closely. A breakpoint that is not known may lie anywhere.
 */
const grids = { whole: { gap: 256, parts: 3 }, other: { gap: near, parts: 1 } } as const;
/** The same for a page without slots: the rules of its style sheets are to be used, and no more. */
const gridsWithoutSlots = {
  whole: { gap: Infinity, parts: 0 },
  other: { gap: 320, parts: 0 },
} as const;

/** The most widths that are measured at first, on a page that takes long at each of them and on others. */
const mostOfSlow = 100;
const mostAtFirst = 300;
/** The most more on a page whose slots are not piecewise linear. */
const mostMore = 140;
/** Milliseconds after which no more rounds begin. */
const sweepTime = 8_000;
/** Milliseconds that the widths may take where scripts are waited for; the first of them must be measured in that time. */
const patientTime = 20_000;
/** How often it is tried: a busy machine may have drawn the page before it is measured. */
const mostTries = 8;
/** Milliseconds after which it is not tried again: a large page takes seconds for each. */
const triesTime = 3_000;
/** Each round of refinement halves the gaps that are not straight. */
const maxRounds = 9;

/**
 * Moves the viewport through all widths without a reload and measures every slot at each: on both
 * sides of the style sheets' own breakpoints, on a grid between them, and wherever a straight line
 * does not fit.
 *
 * The page may answer by fetching other candidates of a `srcset`, and must be let: the browser takes a
 * picture away whose next candidate does not come. So this is the last thing that is done to a page,
 * after all else that is told of it has been put aside.
 *
 * A page without slots has only its breakpoints passed, for the rules that are used there alone.
 *
 * @param documents of the page that was measured
 * @param hasSlots whether there is anything to measure
 * @param breakpoints those of the page
 * @returns a curve for each placement, document by document, in the order in which the probe told them; none where the page's
 *   scripts took too long
 */
export async function sweep(
  cdp: Channel,
  documents: PageAndFrames,
  view: Size,
  hasSlots: boolean,
  breakpoints: Breakpoints,
): Promise<CurvePiece[][]> {
  const grid = (hasSlots ? grids : gridsWithoutSlots)[breakpoints.whole ? 'whole' : 'other'];
  const first = evenly(firstWidths(breakpoints.widths, grid), mostAtFirst);
  // What would be refined of a page of a hundred thousand elements is not worth the time of all others.
  let end = performance.now() + sweepTime;
  const slots = new SlotMeter(cdp, documents, view);
  if (hasSlots && !documents[0].isStill && (await isReactive(cdp, slots, view))) {
    slots.waitForScripts();
    end = performance.now() + patientTime;
    // No curve is better than one of sizes that nobody sees.
    if (!(await slots.measure(first, end))) return [];
  } else {
    await slots.measure(evenly(first, mostOfSlow));
    if (end - performance.now() > (2 / 3) * sweepTime) await slots.measure(first);
  }
  for (let round = 0; round < maxRounds && performance.now() < end; round++) {
    const before = slots.measured.size;
    const left = first.length + mostMore - before;
    await slots.measure(evenly(unexplained(slots.measured), left), end);
    if (slots.measured.size === before) break;
  }
  const fitted = new Map<string, CurvePiece[]>();
  return curvesOf(slots.measured).map((samples) => {
    const key = keyOf(samples);
    const pieces = fitted.get(key) ?? fitSlotCurve(samples);
    fitted.set(key, pieces);
    return pieces;
  });
}

/**
 * Whether the page's scripts react to the width of the window, as those of carousels do: then they are waited for at each width,
 * which takes several times as long. The farther end of the range is tried and, where scripts listen, the other one as well: at
 * one of them, a slot may happen to be as wide as it was. Where it cannot be told, they may react.
 */
async function isReactive(cdp: Channel, slots: SlotMeter, { width }: Size): Promise<boolean> {
  const { from, to } = sweepRange;
  const [farther, nearer] = width / from > to / width ? [from, to] : [to, from];
  const enough = (await watchesSize(cdp)) ? 2 : 1;
  const still = new Set<number>();
  const lastTry = performance.now() + triesTime;
  for (let tries = 0; tries < mostTries && performance.now() < lastTry; tries++) {
    const end = tries % 2 === 0 ? farther : nearer;
    const reacts = await slots.reactsAt(end);
    if (reacts) return true;
    if (reacts === false) still.add(end);
    if (still.size === enough) return false;
  }
  return true;
}

/** Both sides of every breakpoint, and a grid between them. */
export function firstWidths(breakpoints: readonly number[], { gap, parts }: Grid): number[] {
  const { from, to } = sweepRange;
  const isGrid = gap < Infinity;
  const edges = new Set<number>(isGrid ? [from, to] : []);
  for (const point of breakpoints)
    for (const width of [Math.ceil(point) - 1, Math.floor(point), Math.floor(point) + 1])
      if (width >= from && width <= to) edges.add(width);
  const widths = [...edges].sort((a, b) => a - b);
  if (!isGrid) return widths;
  return widths.flatMap((left, at) => {
    const span = (widths[at + 1] ?? left) - left;
    const count = Math.max(1, Math.ceil(span / gap), Math.min(parts, Math.ceil(span / near)));
    return Array.from({ length: count }, (_, part) => left + Math.round((span * part) / count));
  });
}

/** At most so many of a list, with its ends: what is left out is spread over all of it. */
function evenly(widths: readonly number[], most: number): readonly number[] {
  if (widths.length <= most) return widths;
  const step = (widths.length - 1) / Math.max(1, most - 1);
  return Array.from({ length: Math.max(0, most) }, (_, at) => widths[Math.round(at * step)]!);
}

function unexplained(measured: ReadonlyMap<number, Widths>): number[] {
  const widths = new Set(differing(curvesOf(measured)).flatMap(widthsToRefine));
  return [...widths].sort((a, b) => a - b);
}

/** Slots of one grid follow the same curve: it is looked at once. */
function differing(curves: readonly CurveSample[][]): CurveSample[][] {
  return [...new Map(curves.map((samples) => [keyOf(samples), samples])).values()];
}

/** The same for curves that were measured at the same widths and are the same. */
function keyOf(samples: readonly CurveSample[]): string {
  return samples.map(({ width }) => width).join();
}

/** The samples of each placement, in ascending order of the viewport's width. */
function curvesOf(measured: ReadonlyMap<number, Widths>): CurveSample[][] {
  const widths = [...measured.keys()].sort((a, b) => a - b);
  const placements = Math.max(0, ...[...measured.values()].map(({ length }) => length));
  return Array.from({ length: placements }, (_, index) =>
    widths.map((viewport) => ({ viewport, width: measured.get(viewport)![index] ?? null })),
  );
}
