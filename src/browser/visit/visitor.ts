import { messageOf } from '../../core/base/errors.js';
import { within } from '../chromium/within.js';
import { PageVisit } from './page-visit.js';
import type { PageVisitOptions, VisitLimits } from './page-visit.js';
import { Tab } from './tab.js';
import { failedVisit } from './visit-result.js';
import type { Visit } from './visit-result.js';

export const defaultVisitLimits: VisitLimits = { load: 30_000, images: 8_000 };

/** Milliseconds that a visit may take besides loading: measuring, scrolling, reading bodies. */
const patience = 20_000;

/** Milliseconds that a tab may take to open, beside others that keep the machine busy. */
const openingPatience = 60_000;

/** The number of pages after which a tab is replaced: renderers grow with every page. */
const visitsPerTab = 25;

export type VisitorOptions = Omit<PageVisitOptions, 'limits'> &
  Partial<Pick<PageVisitOptions, 'limits'>>;

/** How a page is visited. */
export interface VisitManner {
  /** Called when the server has answered with a page, while the browser still loads it. */
  readonly onAnswered?: (() => void) | undefined;
  /** Whether the page is left only when another one is to be visited: there may be none. */
  readonly mayBeLast?: boolean;
}

/** Visits pages in one view, one after another. All visitors of a context share its network cache. */
export class Visitor {
  readonly #options: PageVisitOptions;
  #tab: Tab | undefined;
  /** A tab that was asked for ahead of the page that it is for. */
  #ahead: Promise<Tab> | undefined;
  /** Settles when the page before has been left; absent while nobody has begun to leave it. */
  #leaving: Promise<void> | undefined = Promise.resolve();

  constructor(options: VisitorOptions) {
    this.#options = { limits: defaultVisitLimits, ...options };
  }

  /** Begins to open a tab for the next page, while others are visited. */
  prepare(): void {
    if (this.#tab) return;
    this.#ahead ??= this.#open();
    // Whoever visits a page with it is told.
    this.#ahead.catch(() => {});
  }

  /** Visits a page. Whatever goes wrong is in the result, never thrown. */
  async visit(url: string, { onAnswered, mayBeLast = false }: VisitManner = {}): Promise<Visit> {
    await this.#leave();
    try {
      this.#tab ??= await (this.#ahead ?? this.#open());
      this.#ahead = undefined;
    } catch (error) {
      this.#ahead = undefined;
      // That is none of the page's doing.
      return this.failed(url, messageOf(error), true);
    }
    const tab = this.#tab;
    const under = new PageVisit(tab, url, this.#options);
    try {
      const most = this.#options.limits.load + patience;
      const words = () =>
        `the page did not respond for ${most / 1000} s while it was ${under.stage}`;
      const visit = await within(most, Promise.race([under.make(onAnswered), tab.crashed]), words);
      this.#leaving = undefined;
      // While others are visited in other tabs.
      if (!mayBeLast) void this.#leave();
      return visit;
    } catch (error) {
      const visit = under.cutShort(error);
      await this.#drop();
      return visit;
    }
  }

  /** The result of a visit that failed before the page was asked for. */
  failed(url: string, error: string, passing = false): Visit {
    return failedVisit(this.#options.view.name, url, error, { passing });
  }

  async #open(): Promise<Tab> {
    const opening = Tab.open(this.#options);
    try {
      const words = () => `no tab opened within ${openingPatience / 1000} s`;
      return await within(openingPatience, opening, words);
    } catch (error) {
      opening.then(
        (tab) => tab.close(),
        () => {},
      );
      throw error;
    }
  }

  /** Leaves the page before, once. */
  #leave(): Promise<void> {
    return (this.#leaving ??= this.#leaveNow(this.#tab!));
  }

  async #leaveNow(tab: Tab): Promise<void> {
    // A page that does not let itself be left costs its tab, and not its visit.
    const leaving = Promise.race([tab.leave(), tab.crashed]);
    const left = await within(patience, leaving, () => 'late').then(
      () => true,
      () => false,
    );
    if (!left || tab.visits >= visitsPerTab) await this.#drop();
  }

  async #drop(): Promise<void> {
    const tab = this.#tab;
    this.#tab = undefined;
    await tab?.close();
  }
}
