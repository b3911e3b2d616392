import { record } from '../base/record.js';
import { wholeNumbers } from '../base/whole-numbers.js';
import { causes, noWaste } from './waste.js';
import type { Waste, WasteByCause } from './waste.js';

/** Bytes in an average visit; not whole numbers, because most visits have only some of the images. */
export interface Portion {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly causes: WasteByCause;
  /** Bytes of files that cannot be judged, in none of the others. */
  readonly unknownBytes: number;
}

/** Numbers that one delivery adds to a sum: needed and unknown bytes, then those of each cause. */
const numbersPerAmount = 2 + causes.length;

/** Appends the amounts of what was sent, split or not, to a list of them. */
export function addAmounts(amounts: number[], waste: Waste | null, sentBytes: number): void {
  amounts.push(waste?.neededBytes ?? 0, waste ? 0 : sentBytes);
  for (const cause of causes) amounts.push(waste?.causes[cause] ?? 0);
}

/** A weighted sum that grows. */
export class PortionSum {
  readonly #sums = new Array<number>(numbersPerAmount).fill(0);

  /**
   * @param amounts as `addAmounts` wrote them
   * @param place of those that are added
   */
  add(amounts: readonly number[], place: number, weight: number): void {
    const sums = this.#sums;
    const from = place * numbersPerAmount;
    for (let at = 0; at < numbersPerAmount; at++) sums[at]! += amounts[from + at]! * weight;
  }

  done(): Portion {
    const [neededBytes = 0, unknownBytes = 0] = this.#sums;
    const split = noWaste();
    causes.forEach((cause, at) => (split[cause] = this.#sums[at + 2]!));
    return fromParts({ neededBytes, unknownBytes, causes: split });
  }
}

/**
 * Portions in whole bytes that still add up: the rows to the total, in every column, and each row's causes to its
 * waste. Every number is less than one byte from what it was.
 */
export function wholePortions(rows: readonly Portion[]): { rows: Portion[]; total: Portion } {
  const whole = rows.map(() => ({ neededBytes: 0, unknownBytes: 0, causes: noWaste() }));
  const settle = (valueOf: (row: Portion) => number, keep: (at: number, value: number) => void) =>
    wholeNumbers(rows.map(valueOf)).forEach((value, at) => keep(at, value));
  settle(
    ({ neededBytes }) => neededBytes,
    (at, value) => (whole[at]!.neededBytes = value),
  );
  settle(
    ({ unknownBytes }) => unknownBytes,
    (at, value) => (whole[at]!.unknownBytes = value),
  );
  for (const cause of causes)
    settle(
      (row) => row.causes[cause],
      (at, value) => (whole[at]!.causes[cause] = value),
    );
  const settled = whole.map(fromParts);
  return { rows: settled, total: sumOf(settled) };
}

/** The sum of several portions. */
export function sumOf(portions: readonly Portion[]): Portion {
  let [neededBytes, unknownBytes] = [0, 0];
  const split = noWaste();
  for (const portion of portions) {
    neededBytes += portion.neededBytes;
    unknownBytes += portion.unknownBytes;
    for (const cause of causes) split[cause] += portion.causes[cause];
  }
  return fromParts({ neededBytes, unknownBytes, causes: split });
}

/** A portion times a factor. */
export function scaled(portion: Portion, factor: number): Portion {
  return fromParts({
    neededBytes: portion.neededBytes * factor,
    unknownBytes: portion.unknownBytes * factor,
    causes: record(causes, (cause) => portion.causes[cause] * factor),
  });
}

function fromParts(parts: Pick<Portion, 'neededBytes' | 'unknownBytes' | 'causes'>): Portion {
  const wasteBytes = causes.reduce((sum, cause) => sum + parts.causes[cause], 0);
  return { ...parts, wasteBytes, sentBytes: parts.neededBytes + wasteBytes };
}
