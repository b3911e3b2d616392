import type { Size } from '../../core/base/size.js';
import { curveTolerance } from '../../core/slots/slot-curve.js';
import type { Channel } from '../chromium/channel.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { SlotWidths } from '../in-page/placements.js';
import { drawnScale } from './tab.js';

/** The widths of all slots; `null` for what is not shown. */
export type Widths = readonly (number | null)[];

/** Measures the slots of a page at widths of the window, without a reload; each width once. */
export class SlotMeter {
  readonly #cdp: Channel;
  readonly #documents: readonly IsolatedWorld[];
  readonly #height: number;
  readonly #isPatient: boolean;
  readonly #measured = new Map<number, Widths>();

  /** @param isPatient whether the page's scripts are waited for at each width */
  constructor(
    cdp: Channel,
    documents: readonly IsolatedWorld[],
    { height }: Size,
    isPatient: boolean,
  ) {
    this.#cdp = cdp;
    this.#documents = documents;
    this.#height = height;
    this.#isPatient = isPatient;
  }

  /** What was measured, by the width of the window. */
  get measured(): ReadonlyMap<number, Widths> {
    return this.#measured;
  }

  /**
   * @param end when it is given up, in milliseconds of `performance.now()`
   * @returns whether all was measured in time
   */
  async measure(widths: readonly number[], end = Infinity): Promise<boolean> {
    const due = widths.filter((width) => !this.#measured.has(width));
    // Orders are carried out in turn: to send them all at once saves waiting for each answer.
    if (!this.#isPatient) await Promise.all(due.map((width) => this.#keep(width)));
    for (const width of due) {
      if (performance.now() > end) return false;
      if (!this.#measured.has(width)) await this.#keep(width);
    }
    return true;
  }

  /**
   * Whether slots have other sizes at a width that was measured once the page's scripts have answered: those of carousels,
   * and of walls of pictures that are placed by scripts.
   */
  async isAnsweredAt(width: number): Promise<boolean> {
    const before = this.#measured.get(width);
    const after = await this.#widthsAt(width, true);
    return !!before && !!after && before.some((one, slot) => differs(one, after[slot] ?? null));
  }

  async #keep(width: number): Promise<void> {
    const widths = await this.#widthsAt(width, this.#isPatient);
    if (widths) this.#measured.set(width, widths);
  }

  /** @returns `undefined` where the window had another width by then */
  async #widthsAt(width: number, isPatient: boolean): Promise<Widths | undefined> {
    const call = isPatient ? 'slotWidthsOnceDrawn' : 'slotWidths';
    const [, ...seen] = await Promise.all([
      this.#cdp.send('Emulation.setDeviceMetricsOverride', {
        width,
        height: this.#height,
        deviceScaleFactor: 1,
        scale: drawnScale,
        mobile: false,
      }),
      ...this.#documents.map((world) => world.call<SlotWidths>(call)),
    ]);
    return seen[0]!.viewport === width ? seen.flatMap(({ widths }) => widths) : undefined;
  }
}

function differs(one: number | null, other: number | null): boolean {
  if (one === null || other === null) return one !== other;
  return Math.abs(one - other) > curveTolerance;
}
