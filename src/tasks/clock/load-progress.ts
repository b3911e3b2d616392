import { formatBytes } from '../../core/base/byte-words.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Network } from '../../core/visitors/network.js';
import type { Progress } from '../progress.js';

/** What is known of the loads of a page before they are made. */
interface Expected {
  readonly bytes: number;
  /** Seconds that a load will probably take. */
  readonly seconds: number;
}

/** Round trips that pass before the bytes of a page flow: connecting, the document, what it names, what that names. */
const roundTrips = 6;

export interface LoadProgressOptions {
  readonly network: Network;
  /** Loads of each page that are to come, the one that does not count among them. */
  readonly loadsPerPage: number;
  readonly pages: readonly string[];
  /** Seconds that a load rests until it can be told when the page was interactive. */
  readonly rest: number;
  readonly onProgress: (progress: Progress) => void;
}

/** The progress of loads: how far the one under way is, and how long all of them will take. */
export class LoadProgress {
  readonly #options: LoadProgressOptions;
  readonly #expected = new Map<string, Expected>();
  /** Loads that have begun, by page. */
  readonly #begun = new Map<string, number>();
  #done = -1;

  constructor(options: LoadProgressOptions) {
    this.#options = options;
  }

  /** A load of a page begins. */
  begin(page: string): { onArrived: (bytes: number) => void } {
    this.#done++;
    const left = this.#secondsLeft();
    this.#begun.set(page, (this.#begun.get(page) ?? 0) + 1);
    const began = performance.now();
    this.#tell(page, left);
    return {
      onArrived: (bytes) => {
        const passed = (performance.now() - began) / 1000;
        const expected = this.#expected.get(page)?.bytes ?? 0;
        const of = expected > bytes ? ` of about ${formatBytes(expected)}` : '';
        const doing = `${page} (${formatBytes(bytes)}${of})`;
        this.#tell(doing, left === undefined ? undefined : Math.max(0, left - passed));
      },
    };
  }

  /**
   * Learns from the load that does not count what the others will be like.
   *
   * @param took milliseconds
   */
  expect(page: string, requests: readonly PageRequest[], took: number): void {
    const { network, rest } = this.#options;
    const bytes = requests.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
    const line = network.down > 0 ? (bytes * 8) / (network.down * 1000) : 0;
    const waiting = (roundTrips * network.latency) / 1000;
    this.#expected.set(page, { bytes, seconds: took / 1000 + line + waiting + rest });
  }

  /** Milliseconds that a load of a page will probably take; 0 before it is known. */
  expectedTime(page: string): number {
    return (this.#expected.get(page)?.seconds ?? 0) * 1000;
  }

  /** All loads have been made. */
  end(): void {
    this.#done++;
    this.#tell('', undefined);
  }

  #tell(doing: string, left: number | undefined): void {
    const { pages, loadsPerPage, onProgress } = this.#options;
    const total = pages.length * loadsPerPage;
    onProgress({ stage: 'loads', done: this.#done, total, doing, left });
  }

  /** `undefined` until every page has been loaded once. */
  #secondsLeft(): number | undefined {
    const { pages, loadsPerPage } = this.#options;
    if (this.#expected.size < new Set(pages).size) return undefined;
    return pages.reduce((sum, page) => {
      const loads = loadsPerPage - (this.#begun.get(page) ?? 0);
      return sum + this.#expected.get(page)!.seconds * loads;
    }, 0);
  }
}
