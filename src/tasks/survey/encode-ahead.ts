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
import type { Visit } from '../../browser/visit/visit-result.js';
import type { PageRecord } from '../../store/page-writer.js';
import type { Workspace } from '../../store/workspace.js';
import { refitResult } from './refit-result.js';
import { encodeByAny } from './encode-file.js';
import type { CrewWork } from './survey-options.js';
import type { WorstImages } from './worst-images.js';

/** Half of the cores are left to the browser: a page waits for the network and for its scripts. */
const own = Math.max(1, Math.floor(availableParallelism() / 2));

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
  /** Bytes of the files that wait, by content hash. */
  readonly #waiting = new Map<string, number>();
  /** By content hash. */
  readonly #running = new Map<string, Promise<void>>();
  #ended = false;
  #failure: Error | undefined;

  readonly #worst: WorstImages;
  readonly #crew: CrewWork | undefined;

  constructor(
    workspace: Workspace,
    views: readonly View[],
    policy: Policy,
    worst: WorstImages,
    crew: CrewWork | undefined,
  ) {
    this.#crew = crew;
    this.#workspace = workspace;
    this.#policy = policy;
    this.#worst = worst;
    this.#key = encodeKey(policy);
    // Page groups are found at the end: what is allowed for them is encoded then.
    this.#allowances = new Allowances(policy.rules, new Map());
    this.#densities = new Map(views.map(({ name, density }) => [name, density]));
  }

  /** Adds what a page needs of its images. */
  note({ page, visits }: PageRecord): void {
    for (const visit of visits) this.#add(page.url, visit, 0);
    this.#fill();
  }

  /** Adds what one visit needs wholly: the visits in other views cannot need more of it. */
  noteVisit(page: string, visit: Pick<Visit, 'view' | 'placements'>): void {
    this.#add(page, visit, 1);
    this.#fill();
  }

  #add(page: string, { view, placements }: Pick<Visit, 'view' | 'placements'>, least: number) {
    for (const placement of placements)
      if (placement.shown && placement.contentHash !== null)
        this.#grow(placement.contentHash, { page, view, ...placement }, least);
  }

  #grow(contentHash: string, placement: Placement, least: number): void {
    const file = this.#workspace.images.get(contentHash);
    if (!file || file.problem !== null) return;
    const density = this.#densities.get(placement.view) ?? 1;
    const factor = file.intrinsic
      ? needFactor(placement, density, file.intrinsic, this.#policy, this.#allowances.of(placement))
      : 1;
    if (factor < least || factor <= (this.#factors.get(contentHash) ?? 0)) return;
    this.#factors.set(contentHash, factor);
    this.#waiting.set(contentHash, file.bytes);
  }

  #fill(): void {
    while (!this.#ended && this.#running.size < own + (this.#crew?.capacity ?? 0)) {
      const next = this.#largestWaiting();
      if (next === undefined) return;
      this.#waiting.delete(next);
      const work = this.#encode(next)
        .catch((error: unknown) => {
          // A full disk, most likely: the crawl goes on, and whoever ends it is told.
          this.#failure ??= error instanceof Error ? error : new Error(messageOf(error));
          this.#ended = true;
        })
        .finally(() => {
          this.#running.delete(next);
          this.#fill();
        });
      this.#running.set(next, work);
    }
  }

  /** What may waste the most comes first, and leaves the least to wait for at the end. */
  #largestWaiting(): string | undefined {
    let largest: string | undefined;
    for (const [hash, bytes] of this.#waiting)
      if (!this.#running.has(hash) && bytes > (this.#waiting.get(largest ?? '') ?? -1))
        largest = hash;
    return largest;
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
    this.#worst.add(
      await encodeByAny(this.#workspace, file, need, this.#policy, this.#crew),
      file.bytes,
    );
  }

  /** Begins no more encodes, and tells those under way by content hash. */
  end(): ReadonlyMap<string, Promise<void>> {
    this.#ended = true;
    return this.#running;
  }

  /**
   * Waits for what is under way.
   *
   * @throws whatever kept an encode from being kept.
   */
  async done(): Promise<void> {
    await Promise.all(this.#running.values());
    if (this.#failure) throw this.#failure;
  }
}
