import { readFamilyKey } from './family-key.js';
import type { FamilyKey } from './family-key.js';
import type { GroupRow } from './groupings.js';
import type { DeliveryRows, Ledger } from './ledger.js';
import type { RankedImage } from './ranked-image.js';
import type { Ranking } from './ranking.js';
import { sizesText } from './sizes-text.js';
import { fitSlotCurve, slotWidthAt } from './slot-curve.js';
import type { CurvePiece } from './slot-curve.js';
import type { SurveyFacts } from './survey.js';
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
export function familyOf(
  { key, rows }: GroupRow,
  images: ReadonlyMap<number, RankedImage>,
  { facts, ledger }: Pick<Ranking, 'facts' | 'ledger'>,
  most: number,
): Family {
  const curve = widestCurve(rows, ledger, facts);
  return {
    ...readFamilyKey(key),
    curve,
    sizes: curve && sizesText(curve),
    plan: planWidths(demandsOf(rows, ledger, images), most, usualSlack),
  };
}

/**
 * What the audience needs of pictures, visit by visit; the bytes at other widths than those that were encoded follow
 * the exponent that each picture's own encodes have.
 *
 * @param rows of the ledger
 * @param images by place in the list of files
 */
export function demandsOf(
  rows: DeliveryRows,
  ledger: Ledger,
  images: ReadonlyMap<number, RankedImage>,
): Demand[] {
  const weights = new Float64Array(ledger.judged.length);
  const fileOf = new Int32Array(ledger.judged.length).fill(-1);
  for (let at = 0; at < rows.length; at++) {
    const row = rows[at]!;
    const judgement = ledger.judgement[row]!;
    fileOf[judgement] = ledger.file[row]!;
    weights[judgement]! += ledger.weights[ledger.visit[row]!]!;
  }
  const demands: Demand[] = [];
  for (let judgement = 0; judgement < fileOf.length; judgement++) {
    if (fileOf[judgement]! < 0) continue;
    const image = images.get(fileOf[judgement]!);
    const width = ledger.judged[judgement]!.need?.width;
    if (width === undefined || !image?.encoded?.need || !image.file.intrinsic) continue;
    const { steps, need } = image.encoded;
    const widest = image.file.intrinsic.width;
    const weight = weights[judgement]!;
    const bytesAt = (wide: number) =>
      weight * steps.best * (Math.min(wide, widest) / need.width) ** (2 * steps.exponent);
    demands.push({ width, bytesAt });
  }
  return demands;
}

/** Viewport widths between the ends of pieces at which curves are compared. */
const grain = 16;

/** The widest of the slots of a family, at every width of the viewport. */
function widestCurve(
  rows: DeliveryRows,
  { deciding }: Ledger,
  { placements }: SurveyFacts,
): readonly CurvePiece[] | null {
  const curves = new Set<readonly CurvePiece[]>();
  for (let at = 0; at < rows.length; at++) {
    const placement = deciding[rows[at]!]!;
    if (placement < 0) continue;
    const curve = placements.curveAt(placement);
    if (curve && curve.length > 0) curves.add(curve);
  }
  const all = [...curves];
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
