import type { Delivery, Judged } from './ledger.js';
import { causes, noWaste } from './waste.js';
import type { WasteByCause } from './waste.js';

/** Bytes in an average visit; not whole numbers, because most visits have only some of the images. */
export interface Portion {
  readonly sentBytes: number;
  readonly neededBytes: number;
  readonly wasteBytes: number;
  readonly causes: WasteByCause;
  /** Bytes of files that cannot be judged, in none of the others. */
  readonly unknownBytes: number;
}

/** The weighted sum of deliveries. */
export function portionOf(deliveries: Iterable<Pick<Delivery, 'judged' | 'weight'>>): Portion {
  const sum = new PortionSum();
  for (const { judged, weight } of deliveries) sum.add(judged, weight);
  return sum.done();
}

/** A weighted sum that grows. Most deliveries are like others: their weights are added up before their bytes are. */
export class PortionSum {
  readonly #weights = new Map<Judged, number>();

  add(judged: Judged, weight: number): void {
    this.#weights.set(judged, (this.#weights.get(judged) ?? 0) + weight);
  }

  done(): Portion {
    let [sentBytes, neededBytes, unknownBytes] = [0, 0, 0];
    const split = noWaste();
    for (const [{ waste, sentBytes: sent }, weight] of this.#weights)
      if (waste) {
        sentBytes += waste.sentBytes * weight;
        neededBytes += waste.neededBytes * weight;
        for (const cause of causes) split[cause] += waste.causes[cause] * weight;
      } else unknownBytes += sent * weight;
    return {
      sentBytes,
      neededBytes,
      wasteBytes: sentBytes - neededBytes,
      causes: split,
      unknownBytes,
    };
  }
}

/**
 * Portions in whole bytes that still add up: the rows to the total, in every column, and each row's causes to its
 * waste. Every number is less than one byte from what it was.
 */
export function wholePortions(rows: readonly Portion[]): { rows: Portion[]; total: Portion } {
  const whole = rows.map(() => ({ neededBytes: 0, unknownBytes: 0, causes: noWaste() }));
  /** Rounds the running sum of a column, so that what one row loses the next one gets. */
  const settle = (valueOf: (row: Portion) => number, keep: (at: number, value: number) => void) => {
    let sum = 0;
    let given = 0;
    rows.forEach((row, at) => {
      sum += valueOf(row);
      const value = Math.round(sum) - given;
      given += value;
      keep(at, value);
    });
  };
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

function fromParts(parts: Pick<Portion, 'neededBytes' | 'unknownBytes' | 'causes'>): Portion {
  const wasteBytes = causes.reduce((sum, cause) => sum + parts.causes[cause], 0);
  return { ...parts, wasteBytes, sentBytes: parts.neededBytes + wasteBytes };
}
