import { ExactSums } from '../base/exact-sums.js';
import type { Demand } from '../slots/width-plan.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';

/** A part of the audience that needs a file at one width. */
export interface NeededWidth {
  /** Place in the list of files. */
  readonly file: number;
  /** Pixels across. */
  readonly width: number;
  /** Visits, as their share of all. */
  readonly weight: number;
}

/**
 * What the audience needs, visit by visit.
 *
 * @param rows of the ledger
 * @returns each width of each file once, in their order
 */
export function neededWidths(
  rows: DeliveryRows,
  ledger: Pick<Ledger, 'verdicts' | 'verdictIndex' | 'file' | 'visit' | 'weights'>,
): NeededWidth[] {
  const needed: NeededWidth[] = [];
  let weights = new ExactSums(16);
  // The deliveries of one file come one after the other.
  for (let from = 0, to = 0; from < rows.length; from = to) {
    const file = ledger.file[rows[from]!]!;
    const widths: number[] = [];
    for (; to < rows.length && ledger.file[rows[to]!] === file; to++) {
      const row = rows[to]!;
      const width = ledger.verdicts[ledger.verdictIndex[row]!]!.need?.width;
      if (width === undefined) continue;
      let place = widths.indexOf(width);
      if (place < 0) place = widths.push(width) - 1;
      if (place === weights.length) weights = weights.extended();
      weights.add(place, ledger.weights[ledger.visit[row]!]!);
    }
    const begin = needed.length;
    widths.forEach((width, place) => {
      needed.push({ file, width, weight: weights.at(place) });
      weights.clear(place);
    });
    if (widths.length > 1)
      needed.push(...needed.splice(begin).sort((one, other) => one.width - other.width));
  }
  return needed;
}

/**
 * The same as what it costs; bytes at widths that were not encoded follow the exponent of each picture's own encodes.
 *
 * @returns none for files without an encode
 */
export function demandsOf(
  needed: readonly NeededWidth[],
  { facts: { files }, encoded }: DemandFiles,
): Demand[] {
  return needed.flatMap(({ file, width, weight }): Demand[] => {
    const of = encoded[file];
    const widest = files[file]!.intrinsic?.width;
    if (widest === undefined || !of?.need) return [];
    const { steps, need } = of;
    const bytesAt = (wide: number) =>
      weight * steps.best * (Math.min(wide, widest) / need.width) ** (2 * steps.exponent);
    return [{ width, bytesAt }];
  });
}

/** The files that demands are of, and their encodes. */
export interface DemandFiles extends Pick<Ledger, 'encoded'> {
  readonly facts: Pick<Ledger['facts'], 'files'>;
}
