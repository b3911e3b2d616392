import type { PlacedImage } from '../findings/image/image-case.js';
import type { DrawnBox, ObjectFit } from '../slots/rendered-size.js';
import type { ElementMarkup } from '../slots/element-markup.js';
import type { ElementPath } from '../slots/element-path.js';
import type { Markup, PlacementKind } from '../slots/placement.js';
import type { CurvePiece } from '../slots/slot-curve.js';
import type { Size } from '../base/size.js';
import type { PlacementShape, PlacementTable } from '../survey/survey-tables.js';

/**
 * A row of the table of placements. What it says is looked up when it is asked for: a large survey has millions of them,
 * and most checks look at one or two of their facts. A copy by `...` has none of them: `PlacementTable.at` makes one.
 */
export class PlacedRow implements PlacedImage {
  readonly row: number;
  readonly #table: PlacementTable;

  constructor(table: PlacementTable, row: number) {
    this.#table = table;
    this.row = row;
  }

  get #shape(): PlacementShape {
    return this.#table.shapeAt(this.row);
  }

  get page(): string {
    return this.#table.visitAt(this.row).page;
  }

  get view(): string {
    return this.#table.visitAt(this.row).view;
  }

  get kind(): PlacementKind {
    return this.#shape.kind;
  }

  get selector(): string {
    return this.#shape.selector;
  }

  get url(): string {
    return this.#table.urlAt(this.row);
  }

  get contentHash(): string | null {
    return this.#table.hashAt(this.row);
  }

  get slot(): Size {
    return this.#shape.slot;
  }

  get fit(): ObjectFit {
    return this.#shape.fit;
  }

  get drawn(): DrawnBox | null {
    return this.#shape.drawn;
  }

  get naturalDensity(): number {
    return this.#shape.naturalDensity;
  }

  get aboveFold(): boolean {
    return this.#shape.aboveFold;
  }

  get aside(): boolean {
    return this.#shape.aside;
  }

  get largest(): boolean {
    return this.#shape.largest;
  }

  get shown(): boolean {
    return this.#shape.shown;
  }

  get loading(): 'lazy' | 'eager' {
    return this.#shape.loading;
  }

  get fetched(): 'at-once' | 'on-scroll' | null {
    return this.#shape.fetched;
  }

  get markup(): Markup | null {
    return this.#table.markupAt(this.row);
  }

  get curve(): readonly CurvePiece[] | null {
    return this.#table.curveAt(this.row);
  }

  get element(): ElementMarkup | null {
    return this.#table.elementAt(this.row);
  }

  get path(): ElementPath {
    return this.#table.pathAt(this.row);
  }
}
