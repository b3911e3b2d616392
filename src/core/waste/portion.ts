import { ExactSums } from '../base/exact-sums.js';
import { record } from '../base/record.js';
import { wholeNumbers } from '../base/whole-numbers.js';
import { causes, noWaste } from './waste.js';
import type { Cause, Waste, WasteByCause } from './waste.js';

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
export const numbersPerAmount = 2 + causes.length;

/** Appends the amounts of what was sent, split or not, to a list of them. */
export function addAmounts(amounts: number[], waste: Waste | null, sentBytes: number): void {
  amounts.push(waste?.neededBytes ?? 0, waste ? 0 : sentBytes);
  for (const cause of causes) amounts.push(waste?.causes[cause] ?? 0);
}

/** Weighted sums that grow, one for each row of a table; in what order they grow makes no difference. */
export class PortionSums {
  readonly sums: ExactSums;

  /** @param sums of others, as they had them */
  constructor(rows: number, sums = new ExactSums(rows * numbersPerAmount)) {
    this.sums = sums;
  }

  get length(): number {
    return this.sums.length / numbersPerAmount;
  }

  /**
   * @param amounts as `addAmounts` wrote them
   * @param place of those that are added
   */
  add(row: number, amounts: readonly number[], place: number, weight: number): void {
    const [to, from] = [row * numbersPerAmount, place * numbersPerAmount];
    for (let at = 0; at < numbersPerAmount; at++) {
      const amount = amounts[from + at]!;
      // Most of them are nothing.
      if (amount !== 0) this.sums.add(to + at, amount * weight);
    }
  }

  /** Adds a row of other sums. */
  addRow(row: number, others: PortionSums, other: number): void {
    const [to, from] = [row * numbersPerAmount, other * numbersPerAmount];
    for (let at = 0; at < numbersPerAmount; at++) this.sums.addSum(to + at, others.sums, from + at);
  }

  /** Adds what others waste by one cause, and nothing else. */
  addCause(row: number, others: PortionSums, cause: Cause): void {
    const at = 2 + causes.indexOf(cause);
    this.sums.addSum(row * numbersPerAmount + at, others.sums, at);
  }

  /** Adds what is needed or cannot be judged, and nothing else. */
  addNeeded(row: number, others: PortionSums): void {
    for (const at of [0, 1]) this.sums.addSum(row * numbersPerAmount + at, others.sums, at);
  }

  at(row: number): Portion {
    return portionOf((at) => this.sums.at(row * numbersPerAmount + at));
  }
}

/** A portion from its numbers, in the layout of `addAmounts`. */
export function portionOf(numberAt: (at: number) => number): Portion {
  const split = noWaste();
  causes.forEach((cause, at) => (split[cause] = numberAt(at + 2)));
  return fromParts({ neededBytes: numberAt(0), unknownBytes: numberAt(1), causes: split });
}

/** The numbers of a portion, in the layout of `addAmounts`. */
export function amountsOf({ neededBytes, unknownBytes, causes: split }: Portion): number[] {
  return [neededBytes, unknownBytes, ...causes.map((cause) => split[cause])];
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
