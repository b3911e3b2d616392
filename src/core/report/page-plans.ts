import type { PageScreen } from '../survey/page-screen.js';
import type { VisitKey } from '../survey/survey-tables.js';
import type { DeliveryRows, Ledger } from '../waste/ledger.js';

/** The images of a page in one view, where they stand. */
export interface PagePlan extends VisitKey {
  /** Of the whole page, in CSS pixels. */
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly PlanBox[];
}

/** An element that shows an image. */
export interface PlanBox {
  /** Place in the list of files. */
  readonly file: number;
  /** Row of its placement. */
  readonly row: number;
  /** Whole CSS pixels from the left and from the top of the page, and the size of the element. */
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** Bytes that one such visit wastes on the file; 0 where it cannot be judged. */
  readonly wasteBytes: number;
}

/** Where the images of visits stand, by page and view. */
export class PagePlans {
  readonly #ledger: Ledger;
  /** The first placement of each visit. */
  readonly #firstRows: Int32Array;
  readonly #visitOf: ReadonlyMap<string, number>;

  constructor(ledger: Ledger) {
    this.#ledger = ledger;
    const { visits, placements } = ledger.facts;
    this.#visitOf = new Map(visits.map(({ page, view }, at) => [`${page}\n${view}`, at]));
    this.#firstRows = new Int32Array(visits.length).fill(-1);
    placements.columns.visit.forEach((visit, row) => {
      if (this.#firstRows[visit]! < 0) this.#firstRows[visit] = row;
    });
  }

  /** The plan of a visit; `undefined` where the ledger has no such visit, or other placements than the screen. */
  of({
    page,
    view,
    width,
    height,
    boxes,
  }: VisitKey & Omit<PageScreen, 'picture'>): PagePlan | undefined {
    const visit = this.#visitOf.get(`${page}\n${view}`);
    if (visit === undefined) return undefined;
    const { file, visit: visitOf } = this.#ledger.facts.placements.columns;
    const first = this.#firstRows[visit]!;
    const found: PlanBox[] = [];
    for (let at = 0; at * 4 < boxes.length; at++) {
      const row = first + at;
      if (first < 0 || visitOf[row] !== visit) return undefined;
      const [left, top, across, down] = boxes.slice(at * 4, at * 4 + 4) as [
        number,
        number,
        number,
        number,
      ];
      if (file[row]! < 0 || across * down === 0) continue;
      const wasteBytes = this.#ledger.verdictOf(file[row]!, visit)?.waste?.wasteBytes ?? 0;
      found.push({ file: file[row]!, row, left, top, width: across, height: down, wasteBytes });
    }
    return { page, view, width, height, boxes: found };
  }
}

/** The placement that wastes the most of some deliveries, by its row; −1 where none shows a file. */
export function costliestPlacement(ledger: Ledger, rows: DeliveryRows): number {
  let [most, placement] = [-1, -1];
  for (const row of rows) {
    const { deciding, verdict, weight } = ledger.at(row);
    const bytes = (verdict.waste?.wasteBytes ?? 0) * weight;
    if (deciding >= 0 && bytes > most) [most, placement] = [bytes, deciding];
  }
  return placement;
}
