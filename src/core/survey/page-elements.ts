import type { SurveyFacts } from './survey.js';
import { Dictionary, rowsByIndex } from './survey-tables.js';

/** The `<img>` elements that pages show, each with its rows in the table of placements: one or more for every view. */
export class PageElements {
  /** The first row of the element of each row; −1 for what is no `<img>`, or not shown. */
  readonly first: Int32Array;
  /** The next row of the same element; −1 after the last. */
  readonly #next: Int32Array;

  constructor({ placements, visits }: Pick<SurveyFacts, 'placements' | 'visits'>) {
    const { visit, shape } = placements.columns;
    const pages = new Dictionary<string, string>((page) => page);
    const pageOf = visits.map(({ page }) => pages.indexOf(page));
    const selectors = new Dictionary<string, string>((selector) => selector);
    const selectorOf = placements.lists.shapes.map(({ kind, shown, selector }) =>
      kind === 'img' && shown ? selectors.indexOf(selector) : -1,
    );
    this.first = new Int32Array(placements.length).fill(-1);
    this.#next = new Int32Array(placements.length).fill(-1);
    const { rows, starts } = rowsByIndex(
      visit.map((at) => pageOf[at]!),
      pages.values.length,
    );
    const last = new Map<number, number>();
    for (let page = 0; page < pages.values.length; page++) {
      last.clear();
      for (let at = starts[page]!; at < starts[page + 1]!; at++) {
        const row = rows[at]!;
        const selector = selectorOf[shape[row]!]!;
        if (selector < 0) continue;
        const before = last.get(selector);
        this.first[row] = before === undefined ? row : this.first[before]!;
        if (before !== undefined) this.#next[before] = row;
        last.set(selector, row);
      }
    }
  }

  /** The rows of the element of a row, in their order; none for what is no `<img>`, or not shown. */
  rowsOf(row: number): number[] {
    const rows: number[] = [];
    for (let at = this.first[row]!; at >= 0; at = this.#next[at]!) rows.push(at);
    return rows;
  }
}
