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
  // The deliveries of one file come one after the other.
  for (let from = 0, to = 0; from < rows.length; from = to) {
    const file = ledger.file[rows[from]!]!;
    const widths: number[] = [];
    const places: number[] = [];
    for (; to < rows.length && ledger.file[rows[to]!] === file; to++) {
      const width = ledger.verdicts[ledger.verdictIndex[rows[to]!]!]!.need?.width;
      if (width !== undefined && !widths.includes(width)) widths.push(width);
      places.push(width === undefined ? -1 : widths.indexOf(width));
    }
    const weights = new ExactSums(widths.length);
    places.forEach((place, at) => {
      if (place >= 0) weights.add(place, ledger.weights[ledger.visit[rows[from + at]!]!]!);
    });
    const own = widths.map((width, at) => ({ file, width, weight: weights.at(at) }));
    needed.push(...own.sort((a, b) => a.width - b.width));
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
