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
import type { EncodeHelp } from './encode-file.js';
import type { DueEncode } from './encode-survey.js';
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
  /** Bytes of the files that wait to be encoded once, by content hash, and of those whose search is still to be made. */
  readonly #waiting = { first: new Map<string, number>(), search: new Map<string, number>() };
  /** By content hash. */
  readonly #running = new Map<string, Promise<void>>();
  #ended = false;
  #failure: Error | undefined;

  readonly #worst: WorstImages;
  readonly #help: EncodeHelp;

  constructor(
    workspace: Workspace,
    views: readonly View[],
    policy: Policy,
    worst: WorstImages,
    help: EncodeHelp,
  ) {
    this.#help = help;
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
    const { first, search } = this.#waiting;
    search.delete(contentHash);
    (this.#help.firsts ? first : search).set(contentHash, file.bytes);
  }

  #fill(): void {
    while (!this.#ended && this.#running.size < own + (this.#help.crew?.capacity ?? 0)) {
      const { first, search } = this.#waiting;
      // All are encoded once before any is searched: that shows what wastes the most.
      const once = this.#largestOf(first);
      const next = once ?? this.#largestOf(search);
      if (next === undefined) return;
      if (once !== undefined) search.set(next, first.get(next)!);
      (once === undefined ? search : first).delete(next);
      const work = (once === undefined ? this.#search(next) : this.#encodeOnce(next))
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
  #largestOf(waiting: ReadonlyMap<string, number>): string | undefined {
    let largest: string | undefined;
    for (const [hash, bytes] of waiting)
      if (!this.#running.has(hash) && bytes > (waiting.get(largest ?? '') ?? -1)) largest = hash;
    return largest;
  }

  async #encodeOnce(contentHash: string): Promise<void> {
    const { firsts } = this.#help;
    const due = this.#due(contentHash);
    if (!due?.need || !firsts) return;
    await firsts.make(due.file, due.need);
    const estimate = firsts.estimateOf(due.file, due.need);
    if (estimate) this.#worst.add(estimate, due.file.bytes, true);
  }

  async #search(contentHash: string): Promise<void> {
    const due = this.#due(contentHash);
    if (!due) return;
    const { file, need } = due;
    this.#worst.add(
      await encodeByAny(this.#workspace, file, need, this.#policy, this.#help),
      file.bytes,
    );
  }

  /** What is still to be encoded of a file, and can be. */
  #due(contentHash: string): DueEncode | undefined {
    const { images, encodes, bodies } = this.#workspace;
    const file = images.get(contentHash)!;
    const need: Size | null = file.intrinsic
      ? pixelsAt(file.intrinsic, this.#factors.get(contentHash)!)
      : null;
    if (!need && !isVector(file)) return undefined;
    if (encodes.get(contentHash, need, this.#key) || !bodies.has(contentHash)) return undefined;
    if (refitResult(this.#workspace, file, need, this.#policy)) return undefined;
    return { file, need };
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
