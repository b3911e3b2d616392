import { ExactSums } from '../base/exact-sums.js';
import type { Encoded } from '../survey/encoded.js';
import type { Placement } from '../slots/placement.js';
import type { RowsByIndex } from '../survey/survey-tables.js';
import type { SurveyFacts } from '../survey/survey.js';
import type { JudgeInputs } from './file-judge.js';
import { PortionSums } from './portion.js';
import type { Portion } from './portion.js';
import type { Verdict } from './verdict.js';

/** One image file in one visit: the bytes sent and the bytes needed. */
export interface Delivery {
  /** Place in the list of files, and in that of visits. */
  readonly file: number;
  readonly visit: number;
  /** Row of the placement that decides the need; −1 where none shows the file. */
  readonly deciding: number;
  /** Row of the first placement of the file on that visit; −1 where there is none. */
  readonly placed: number;
  readonly verdict: Verdict;
  /** The weight of its visit. */
  readonly weight: number;
}

/** Rows of a ledger. */
export type DeliveryRows = Int32Array;

/**
 * Every file in every visit: all rankings are sums of these. A row is one delivery; there are as many as
 * placements, so they are stored in columns. The rows of one file are adjacent, in the order of the visits.
 */
export class Ledger {
  /** The survey that it is of. */
  readonly facts: SurveyFacts;
  /** The inputs its deliveries were judged with. */
  readonly inputs: JudgeInputs;
  readonly file: Int32Array;
  readonly visit: Int32Array;
  readonly deciding: Int32Array;
  readonly placed: Int32Array;
  /** Place in the list of what is judged. */
  readonly verdictIndex: Int32Array;
  /** The rows of each file are those from `starts[file]` to before `starts[file + 1]`. */
  readonly starts: Int32Array;
  readonly verdicts: readonly Verdict[];
  /** The amounts that each of `judged` adds to a sum, one after the other, in the layout of `addAmounts`. */
  readonly amounts: readonly number[];
  /** The weight of each visit. */
  readonly weights: Float64Array;
  /** The encode of each file that has one. */
  readonly encoded: readonly (Encoded | undefined)[];
  readonly placements: RowsByIndex;
  readonly answers: RowsByIndex;

  constructor(
    columns: Omit<
      Ledger,
      | 'length'
      | 'rows'
      | 'rowsOf'
      | 'at'
      | 'wasteByFile'
      | 'addTo'
      | 'perVisit'
      | 'sum'
      | 'isInSight'
      | 'groups'
      | 'verdictOf'
    >,
  ) {
    this.facts = columns.facts;
    this.inputs = columns.inputs;
    this.file = columns.file;
    this.visit = columns.visit;
    this.deciding = columns.deciding;
    this.placed = columns.placed;
    this.verdictIndex = columns.verdictIndex;
    this.starts = columns.starts;
    this.verdicts = columns.verdicts;
    this.amounts = columns.amounts;
    this.weights = columns.weights;
    this.encoded = columns.encoded;
    this.placements = columns.placements;
    this.answers = columns.answers;
  }

  get length(): number {
    return this.file.length;
  }

  /** All rows. */
  get rows(): DeliveryRows {
    return this.#span(0, this.length);
  }

  /** The rows of one file. */
  rowsOf(file: number): DeliveryRows {
    return this.#span(this.starts[file]!, this.starts[file + 1]!);
  }

  #span(from: number, to: number): DeliveryRows {
    const rows = new Int32Array(to - from);
    for (let at = 0; at < rows.length; at++) rows[at] = from + at;
    return rows;
  }

  at(row: number): Delivery {
    const visit = this.visit[row]!;
    return {
      file: this.file[row]!,
      visit,
      deciding: this.deciding[row]!,
      placed: this.placed[row]!,
      verdict: this.verdicts[this.verdictIndex[row]!]!,
      weight: this.weights[visit]!,
    };
  }

  /** The page group of each page; `null` for a page by itself. */
  get groups(): ReadonlyMap<string, string | null> {
    return (this.#groups ??= new Map(this.facts.pages.map(({ url, group }) => [url, group])));
  }

  #groups: ReadonlyMap<string, string | null> | undefined;

  /** The verdict on a file in a visit, by their places; `undefined` where the visit was not sent it. */
  verdictOf(file: number, visit: number): Verdict | undefined {
    // The rows of a file are in the order of the visits.
    let [from, to] = [this.starts[file]!, this.starts[file + 1]!];
    while (from < to) {
      const middle = (from + to) >>> 1;
      if (this.visit[middle]! < visit) from = middle + 1;
      else to = middle;
    }
    const isFound = from < this.starts[file + 1]! && this.visit[from] === visit;
    return isFound ? this.verdicts[this.verdictIndex[from]!] : undefined;
  }

  /** Whether any view has an element in its first screen, with whatever file it chose there. */
  isInSight({ page, selector, aboveFold, markup }: Placement): boolean {
    // Only where an element chooses among files does another view have it with another one.
    if (aboveFold || !markup?.srcset) return aboveFold;
    return (this.#inSight ??= this.#elementsInSight()).has(`${page}\n${selector}`);
  }

  #inSight: ReadonlySet<string> | undefined;

  #elementsInSight(): Set<string> {
    const { placements, visits } = this.facts;
    const { visit, shape } = placements.columns;
    const found = new Set<string>();
    for (let row = 0; row < placements.length; row++) {
      const { aboveFold, shown, markup, selector } = placements.lists.shapes[shape[row]!]!;
      if (aboveFold && shown && markup?.srcset)
        found.add(`${visits[visit[row]!]!.page}\n${selector}`);
    }
    return found;
  }

  /** What an average visit wastes of each file, in bytes. */
  wasteByFile(): ExactSums {
    const sums = new ExactSums(this.starts.length - 1);
    const wasted = Float64Array.from(this.verdicts, ({ waste }) => waste?.wasteBytes ?? 0);
    for (let row = 0; row < this.length; row++)
      sums.add(this.file[row]!, wasted[this.verdictIndex[row]!]! * this.weights[this.visit[row]!]!);
    return sums;
  }

  /** The totals of an average visit; the sums of any grouping. */
  get perVisit(): Portion {
    return (this.#perVisit ??= this.sum(this.rows));
  }

  #perVisit: Portion | undefined;

  /** Adds a row, weighted, to one of several sums. */
  addTo(sums: PortionSums, sum: number, row: number): void {
    sums.add(sum, this.amounts, this.verdictIndex[row]!, this.weights[this.visit[row]!]!);
  }

  /** The weighted sum of some rows. */
  sum(rows: DeliveryRows): Portion {
    const sum = new PortionSums(1);
    for (let at = 0; at < rows.length; at++) this.addTo(sum, 0, rows[at]!);
    return sum.at(0);
  }
}
