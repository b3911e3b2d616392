import { readFamilyKey } from '../slots/family-key.js';
import type { FamilyKey } from '../slots/family-key.js';
import { demandsOf, neededWidths } from './demands.js';
import type { GroupRow } from './groupings.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';
import type { Ranking } from './ranking.js';
import { sizesText } from '../slots/sizes-text.js';
import { fitSlotCurve, slotWidthAt } from '../slots/slot-curve.js';
import type { CurvePiece } from '../slots/slot-curve.js';
import { planWidths, usualSlack } from '../slots/width-plan.js';
import type { Demand, WidthPlan } from '../slots/width-plan.js';

/** What would serve a whole slot family. */
export interface Family extends FamilyKey {
  /** The width of the slot, the widest of all pages; `null` if it was not swept. */
  readonly curve: readonly CurvePiece[] | null;
  /** The value that `sizes` should have; `null` without a curve. */
  readonly sizes: string | null;
  /** The widths to offer, and the bytes of an average visit with them. */
  readonly plan: WidthPlan;
}

/** @param most widths that a picture is offered in */
export function familyOf(
  { key, rows }: Pick<GroupRow, 'key' | 'rows'>,
  { ledger }: Pick<Ranking, 'ledger'>,
  most: number,
): Family {
  const curves = curvesOf(rows, ledger);
  return familyFrom(key, curves, demandsOf(neededWidths(rows, ledger), ledger), most);
}

/** A family from the slot curves of its elements, each that is different once, and what its visitors need. */
export function familyFrom(
  key: string,
  curves: readonly (readonly CurvePiece[])[],
  demands: readonly Demand[],
  most: number,
): Family {
  const curve = widestCurve(curves);
  return {
    ...readFamilyKey(key),
    curve,
    sizes: curve && sizesText(curve),
    plan: planWidths(demands, most, usualSlack),
  };
}

/** The slot curves of the elements that some deliveries are shown in, each that is different once. */
export function curvesOf(
  rows: DeliveryRows,
  { deciding, facts: { placements } }: Ledger,
): (readonly CurvePiece[])[] {
  const curves = new Set<readonly CurvePiece[]>();
  for (let at = 0; at < rows.length; at++) {
    const placement = deciding[rows[at]!]!;
    if (placement < 0) continue;
    const curve = placements.curveAt(placement);
    if (curve && curve.length > 0) curves.add(curve);
  }
  return [...curves];
}

/** Viewport widths between the ends of pieces at which curves are compared. */
const grain = 16;

/** The widest of the slots of a family, at every width of the viewport. */
function widestCurve(all: readonly (readonly CurvePiece[])[]): readonly CurvePiece[] | null {
  if (all.length < 2) return all[0] ?? null;
  const ends = all.flat().flatMap(({ from, to }) => [from, to]);
  const least = ends.reduce((low, end) => Math.min(low, end), Infinity);
  const most = ends.reduce((high, end) => Math.max(high, end), 0);
  const viewports = new Set(ends);
  for (let viewport = least; viewport < most; viewport += grain) viewports.add(viewport);
  const samples = [...viewports]
    .sort((a, b) => a - b)
    .map((viewport) => {
      const widths = all.flatMap((curve) => slotWidthAt(curve, viewport) ?? []);
      return { viewport, width: widths.length > 0 ? Math.max(...widths) : null };
    });
  return fitSlotCurve(samples);
}
