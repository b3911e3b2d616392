import { readFamilyKey } from './family-key.js';
import type { FamilyKey } from './family-key.js';
import type { GroupRow, RankedDelivery } from './groupings.js';
import { sizesText } from './sizes-text.js';
import { fitSlotCurve, slotWidthAt } from './slot-curve.js';
import type { CurvePiece } from './slot-curve.js';
import { planWidths, usualSlack } from './width-plan.js';
import type { Demand, WidthPlan } from './width-plan.js';

/** What would serve a whole slot family. */
export interface Family extends FamilyKey {
  /** How wide the slot is, the widest of all pages; `null` where it was not swept. */
  readonly curve: readonly CurvePiece[] | null;
  /** What `sizes` should say; `null` without a curve. */
  readonly sizes: string | null;
  /** The widths to offer, with what an average visit is then sent. */
  readonly plan: WidthPlan;
}

/** @param most widths that a picture is offered in */
export function familyOf({ key, deliveries }: GroupRow, most: number): Family {
  const curve = widestCurve(deliveries);
  return {
    ...readFamilyKey(key),
    curve,
    sizes: curve && sizesText(curve),
    plan: planWidths(demandsOf(deliveries), most, usualSlack),
  };
}

/**
 * What the audience needs of the pictures of a family, visit by visit; the bytes at other widths than those that
 * were encoded follow the exponent that each picture's own encodes have.
 */
export function demandsOf(deliveries: readonly RankedDelivery[]): Demand[] {
  const demands = new Map<string, { width: number; weight: number; one: RankedDelivery }>();
  for (const one of deliveries) {
    const { need, weight } = one.delivery;
    if (!need || !one.image.encoded?.need) continue;
    const key = `${one.image.file.contentHash} ${need.width}`;
    const known = demands.get(key);
    if (known) known.weight += weight;
    else demands.set(key, { width: need.width, weight, one });
  }
  return [...demands.values()].map(({ width, weight, one: { image } }) => {
    const { steps, need } = image.encoded!;
    const widest = image.file.intrinsic!.width;
    const bytesAt = (wide: number) =>
      weight * steps.best * (Math.min(wide, widest) / need!.width) ** (2 * steps.exponent);
    return { width, bytesAt };
  });
}

/** Viewport widths between the ends of pieces at which curves are compared. */
const grain = 16;

/** The widest of the slots of a family, at every width of the viewport. */
function widestCurve(deliveries: readonly RankedDelivery[]): readonly CurvePiece[] | null {
  const curves = new Map<string, readonly CurvePiece[]>();
  for (const { image, delivery } of deliveries) {
    const curve = delivery.deciding && image.curveOf(delivery.deciding);
    if (curve && curve.length > 0) curves.set(JSON.stringify(curve), curve);
  }
  const [first, ...others] = curves.values();
  if (!first || others.length === 0) return first ?? null;
  const all = [first, ...others];
  const ends = all.flat().flatMap(({ from, to }) => [from, to]);
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
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
