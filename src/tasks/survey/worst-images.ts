import type { Encoded } from '../../core/survey/encoded.js';
import type { PageRecord } from '../../store/page-writer.js';
import type { WastefulImage } from '../progress.js';

/** How many are shown. */
const shown = 3;

/** The images that waste the most, as far as is known while a survey is under way. */
export class WorstImages {
  /** Where each content was seen first. */
  readonly #addresses = new Map<string, string>();
  readonly #found = new Map<string, WastefulImage>();
  #top: readonly WastefulImage[] = [];

  get top(): readonly WastefulImage[] {
    return this.#top;
  }

  note({ visits }: Pick<PageRecord, 'visits'>): void {
    for (const { responses } of visits)
      for (const { contentHash, url } of responses)
        if (contentHash !== null && !this.#addresses.has(contentHash))
          this.#addresses.set(contentHash, url);
  }

  /**
   * @param bytes those of the file as it is
   * @param isEstimate whether it was encoded only once
   */
  add({ contentHash, problem, steps }: Encoded, bytes: number, isEstimate = false): void {
    const url = this.#addresses.get(contentHash);
    if (url === undefined || problem !== null) return;
    const image = { url, bytes, needed: Math.min(bytes, steps.best), isEstimate };
    // A later page may need more of it than the first: then one that was not among the worst may be.
    const isAnew = this.#top.some((one) => one.url === url);
    this.#found.set(url, image);
    this.#top = [...(isAnew ? this.#found.values() : [...this.#top, image])]
      .sort((one, other) => wasteOf(other) - wasteOf(one))
      .slice(0, shown);
  }
}

function wasteOf({ bytes, needed }: WastefulImage): number {
  return bytes - needed;
}
