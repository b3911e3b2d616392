import type { Size } from '../../core/base/size.js';
import { curveTolerance } from '../../core/slots/slot-curve.js';
import type { Channel } from '../chromium/channel.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { SlotWidths } from '../in-page/placements.js';
import { outOfSight } from './out-of-sight.js';
import { Reactions } from './reactions.js';

/** The widths of all slots; `null` for what is not shown. */
export type Widths = readonly (number | null)[];

/** The worlds of a page and of its frames behind it. */
export type PageAndFrames = readonly [page: IsolatedWorld, ...frames: IsolatedWorld[]];

/** Measures the slots of a page at widths of the window, without a reload; each width once. */
export class SlotMeter {
  readonly #cdp: Channel;
  readonly #documents: PageAndFrames;
  readonly #height: number;
  readonly #measured = new Map<number, Widths>();
  #isPatient = false;
  #reactions: Reactions | undefined;

  constructor(cdp: Channel, documents: PageAndFrames, { height }: Size) {
    this.#cdp = cdp;
    this.#documents = documents;
    this.#height = height;
  }

  /** Has the page's scripts waited for at each width from now on. */
  waitForScripts(): void {
    this.#isPatient = true;
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
   * Whether slots have other sizes at a width, other than the present one, once the page's scripts have reacted: those of
   * carousels, and of walls of pictures that are placed by scripts.
   *
   * @returns `null` where they had heard of it before anything could be measured
   */
  async reactsAt(width: number): Promise<boolean | null> {
    this.#reactions ??= await Reactions.hasten(this.#cdp);
    const [page] = this.#documents;
    await page.call('listenForWidth');
    const [unheard] = await Promise.all([
      page.call<SlotWidths | null>('unheardSlotWidths', width),
      this.#resize(width),
    ]);
    if (!unheard) return null;
    const before = widthsOf(await this.#withFrames(unheard));
    const after = widthsOf(await this.#seenOnceDrawn());
    return before.some((one, slot) => differs(one, after[slot] ?? null));
  }

  async #keep(width: number): Promise<void> {
    const [, seen] = await Promise.all([
      this.#resize(width),
      this.#isPatient ? this.#seenOnceDrawn() : this.#seen(),
    ]);
    // The window may have had another width by then.
    if (seen[0]?.viewport === width) this.#measured.set(width, widthsOf(seen));
  }

  #seen(): Promise<readonly SlotWidths[]> {
    return Promise.all(this.#documents.map((world) => world.call<SlotWidths>('slotWidths')));
  }

  /** Only the page itself is waited for: a frame in which no script may run, or that is out of sight, never has a turn. */
  async #seenOnceDrawn(): Promise<readonly SlotWidths[]> {
    const inPage = await this.#documents[0].call<SlotWidths>('slotWidthsOnceDrawn');
    return (await this.#reactions?.wait()) ? this.#seen() : this.#withFrames(inPage);
  }

  async #withFrames(inPage: SlotWidths): Promise<readonly SlotWidths[]> {
    const [, ...frames] = this.#documents;
    const inFrames = frames.map((world) => world.call<SlotWidths>('slotWidths'));
    return [inPage, ...(await Promise.all(inFrames))];
  }

  #resize(width: number): Promise<unknown> {
    return this.#cdp.send('Emulation.setDeviceMetricsOverride', {
      width,
      height: this.#height,
      deviceScaleFactor: 1,
      viewport: outOfSight,
      mobile: false,
    });
  }
}

function widthsOf(documents: readonly SlotWidths[]): Widths {
  return documents.flatMap(({ widths }) => widths);
}

function differs(one: number | null, other: number | null): boolean {
  if (one === null || other === null) return one !== other;
  return Math.abs(one - other) > curveTolerance;
}
