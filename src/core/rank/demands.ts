import type { Demand } from '../slots/width-plan.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';

/**
 * The needs of the audience, visit by visit; bytes at widths that were not encoded follow the exponent of each
 * picture's own encodes.
 *
 * @param rows of the ledger
 */
export function demandsOf(
  rows: DeliveryRows,
  { facts: { files }, ...ledger }: Pick<Ledger, DemandColumns>,
): Demand[] {
  const weights = new Float64Array(ledger.verdicts.length);
  const fileOf = new Int32Array(ledger.verdicts.length).fill(-1);
  for (let at = 0; at < rows.length; at++) {
    const row = rows[at]!;
    const verdict = ledger.verdictIndex[row]!;
    fileOf[verdict] = ledger.file[row]!;
    weights[verdict]! += ledger.weights[ledger.visit[row]!]!;
  }
  const demands: Demand[] = [];
  for (let verdict = 0; verdict < fileOf.length; verdict++) {
    const file = fileOf[verdict]!;
    if (file < 0) continue;
    const width = ledger.verdicts[verdict]!.need?.width;
    const encoded = ledger.encoded[file];
    const widest = files[file]!.intrinsic?.width;
    if (width === undefined || widest === undefined || !encoded?.need) continue;
    const { steps, need } = encoded;
    const weight = weights[verdict]!;
    const bytesAt = (wide: number) =>
      weight * steps.best * (Math.min(wide, widest) / need.width) ** (2 * steps.exponent);
    demands.push({ width, bytesAt });
  }
  return demands;
}

type DemandColumns =
  'facts' | 'verdicts' | 'verdictIndex' | 'file' | 'visit' | 'weights' | 'encoded';
