import { availableParallelism } from 'node:os';
import { Allowances } from '../../core/policy/allowance.js';
import { messageOf } from '../../core/base/errors.js';
import { isVector } from '../../core/survey/image-file.js';
import { needFactor, pixelsAt } from '../../core/policy/need.js';
import type { Placement } from '../../core/slots/placement.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import type { View } from '../../core/visitors/view.js';
import { encodeKey } from '../../images/encode-key.js';
import type { PageRecord } from '../../store/pages.js';
import type { Workspace } from '../../store/workspace.js';
import { refitResult } from './refit-result.js';
import { encodeAndKeep } from './encode-file.js';

/** Half of the cores are left to the browser: a page waits for the network and for its scripts. */
const workers = Math.max(1, Math.floor(availableParallelism() / 2));

/**
 * Encodes images while the crawl waits for the network: each as soon as a page has shown what is needed of it. Where
 * a later page needs more, it is encoded again; what is then still missing is made at the end.
 */
export class EncodeAhead {
  readonly #workspace: Workspace;
  readonly #policy: Policy;
  readonly #key: string;
  readonly #allowances: Allowances;
  readonly #densities: ReadonlyMap<string, number>;
  /** The largest factor that any placement needed of a file so far. */
  readonly #factors = new Map<string, number>();
  readonly #waiting = new Set<string>();
  readonly #running = new Set<Promise<void>>();
  #ended = false;
  #failure: Error | undefined;

  constructor(workspace: Workspace, views: readonly View[], policy: Policy) {
    this.#workspace = workspace;
    this.#policy = policy;
    this.#key = encodeKey(policy);
    // Page groups are found at the end: what is allowed for them is encoded then.
    this.#allowances = new Allowances(policy.rules, new Map());
    this.#densities = new Map(views.map(({ name, density }) => [name, density]));
  }

  /** Adds what a page needs of its images. */
  note({ page, visits }: PageRecord): void {
    for (const { view, placements } of visits)
      for (const placement of placements)
        if (placement.shown && placement.contentHash !== null)
          this.#grow(placement.contentHash, { page: page.url, view, ...placement });
    this.#fill();
  }

  #grow(contentHash: string, placement: Placement): void {
    const file = this.#workspace.images.get(contentHash);
    if (!file || file.problem !== null) return;
    const density = this.#densities.get(placement.view) ?? 1;
    const factor = file.intrinsic
      ? needFactor(placement, density, file.intrinsic, this.#policy, this.#allowances.of(placement))
      : 1;
    if (factor <= (this.#factors.get(contentHash) ?? 0)) return;
    this.#factors.set(contentHash, factor);
    this.#waiting.add(contentHash);
  }

  #fill(): void {
    while (!this.#ended && this.#running.size < workers) {
      const [next] = this.#waiting;
      if (next === undefined) return;
      this.#waiting.delete(next);
      const work = this.#encode(next)
        .catch((error: unknown) => {
          // A full disk, most likely: the crawl goes on, and whoever ends it is told.
          this.#failure ??= error instanceof Error ? error : new Error(messageOf(error));
          this.#ended = true;
        })
        .finally(() => {
          this.#running.delete(work);
          this.#fill();
        });
      this.#running.add(work);
    }
  }

  async #encode(contentHash: string): Promise<void> {
    const { images, encodes, bodies } = this.#workspace;
    const file = images.get(contentHash)!;
    const need: Size | null = file.intrinsic
      ? pixelsAt(file.intrinsic, this.#factors.get(contentHash)!)
      : null;
    if (!need && !isVector(file)) return;
    if (encodes.get(contentHash, need, this.#key) || !bodies.has(contentHash)) return;
    if (refitResult(this.#workspace, file, need, this.#policy)) return;
    await encodeAndKeep(this.#workspace, file, need, this.#policy);
  }

  /**
   * Takes nothing in any more, and waits for what is under way.
   *
   * @throws whatever kept an encode from being kept.
   */
  async end(): Promise<void> {
    this.#ended = true;
    await Promise.all(this.#running);
    if (this.#failure) throw this.#failure;
  }
}
