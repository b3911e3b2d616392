import type { Channel } from '../chromium/channel.js';
import { fitSlotCurve } from '../../core/slots/slot-curve.js';
import { widthsToRefine } from '../../core/slots/widths-to-refine.js';
import type { CurvePiece, CurveSample } from '../../core/slots/slot-curve.js';
import type { Size } from '../../core/base/size.js';
import type { Breakpoints } from '../in-page/breakpoints.js';
import type { SlotWidths } from '../in-page/placements.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import { drawnScale } from './tab.js';

/** The viewport widths that are swept, in CSS pixels. */
export const sweepRange = { from: 320, to: 2560 } as const;

/** The widest gap between two measurements between breakpoints, in CSS pixels. */
const step = 64;
/** The same on a page without slots that has style sheets which cannot be read: their rules are to be used, and no more. */
const stepWithoutSlots = 320;
/** The most measurements of a page whose slots are not piecewise linear. */
const maxWidths = 160;
/** Milliseconds after which no more rounds begin. */
const sweepTime = 8_000;
/** Each round of refinement halves the gaps that are not straight. */
const maxRounds = 7;

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
 * @param documents the worlds of the page that was measured, and of its frames behind it
 * @param hasSlots whether there is anything to measure
 * @returns a curve for each placement, document by document, in the order in which the probe told them
 */
export async function sweep(
  cdp: Channel,
  documents: readonly [page: IsolatedWorld, ...frames: IsolatedWorld[]],
  { height }: Size,
  hasSlots: boolean,
): Promise<CurvePiece[][]> {
  const measured = new Map<number, readonly (number | null)[]>();
  const resize = (width: number) =>
    cdp.send('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      scale: drawnScale,
      mobile: false,
    });
  const measureAt = async (width: number) => {
    const [, ...seen] = await Promise.all([
      resize(width),
      ...documents.map((world) => world.call<SlotWidths>('slotWidths')),
    ]);
    if (seen[0]!.viewport === width)
      measured.set(
        width,
        seen.flatMap(({ widths }) => widths),
      );
  };
  const measure = async (widths: readonly number[]) => {
    const due = widths
      .filter((width) => !measured.has(width))
      .slice(0, Math.max(0, maxWidths - measured.size));
    // Orders are carried out in turn: to send them all at once saves waiting for each answer.
    await Promise.all(due.map(measureAt));
    for (const width of due) if (!measured.has(width)) await measureAt(width);
  };
  const { widths, whole } = await documents[0].call<Breakpoints>('breakpointsOf');
  await measure(firstWidths(widths, hasSlots ? step : whole ? Infinity : stepWithoutSlots));
  // What would be refined of a page of a hundred thousand elements is not worth the time of all others.
  const end = performance.now() + sweepTime;
  for (let round = 0; round < maxRounds && performance.now() < end; round++) {
    const before = measured.size;
    await measure(unexplained(measured));
    if (measured.size === before) break;
  }
  const fitted = new Map<string, CurvePiece[]>();
  return curvesOf(measured).map((samples) => {
    const key = keyOf(samples);
    const pieces = fitted.get(key) ?? fitSlotCurve(samples);
    fitted.set(key, pieces);
    return pieces;
  });
}

/**
 * Both sides of every breakpoint, and a grid.
 *
 * @param gap the widest gap of the grid; infinite for none
 */
export function firstWidths(breakpoints: readonly number[], gap = step): number[] {
  const { from, to } = sweepRange;
  const widths = new Set<number>(gap < Infinity ? [to] : []);
  for (let width = from; gap < Infinity && width < to; width += gap) widths.add(width);
  for (const point of breakpoints)
    for (const width of [Math.ceil(point) - 1, Math.floor(point), Math.floor(point) + 1])
      if (width >= from && width <= to) widths.add(width);
  return [...widths].sort((a, b) => a - b);
}

function unexplained(measured: ReadonlyMap<number, readonly (number | null)[]>): number[] {
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
function curvesOf(measured: ReadonlyMap<number, readonly (number | null)[]>): CurveSample[][] {
  const widths = [...measured.keys()].sort((a, b) => a - b);
  const placements = Math.max(0, ...[...measured.values()].map(({ length }) => length));
  return Array.from({ length: placements }, (_, index) =>
    widths.map((viewport) => ({ viewport, width: measured.get(viewport)![index] ?? null })),
  );
}
