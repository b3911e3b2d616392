import { LRUCache } from 'lru-cache';
import { messageOf } from '../../core/base/errors.js';
import type { KeepText, RulesOf } from '../../browser/network/texts.js';
import type { StyleRule } from '../../core/survey/style-use.js';
import { contentHashOf } from '../../images/hash.js';
import type { Workspace } from '../../store/workspace.js';
import type { ExaminedKind } from '../../texts/text-facts.js';
import type { TextThread } from '../../texts/text-thread.js';

/** Bytes of the style sheets whose rules are remembered; in memory these are a few times as large. */
const keptRuleBytes = 12 * 1024 * 1024;

/** Keeps the texts and fonts of a survey, and finds out what can be made of them, each content once, while the crawl goes on. */
export class TextWork {
  readonly #workspace: Pick<Workspace, 'texts' | 'bodies'>;
  readonly #thread: TextThread;
  readonly #noBodies: boolean;
  readonly #underWay = new Map<string, Promise<unknown>>();
  readonly #rules = new LRUCache<string, Promise<readonly StyleRule[] | undefined>>({
    maxSize: keptRuleBytes,
  });
  #failure: Error | undefined;

  constructor(
    workspace: Pick<Workspace, 'texts' | 'bodies'>,
    thread: TextThread,
    noBodies: boolean,
  ) {
    this.#workspace = workspace;
    this.#thread = thread;
    this.#noBodies = noBodies;
  }

  /** Readies what texts are examined with. */
  prepare(): void {
    this.#thread.prepare();
  }

  readonly keep: KeepText = (body, kind) => {
    const contentHash = contentHashOf(body);
    // Visits wait for them, and for nothing else of what is found out.
    if (kind === 'style' && !this.#rules.has(contentHash)) void this.#readRules(contentHash, body);
    this.#begin(contentHash, () => [
      this.#examine(contentHash, body, kind),
      this.#noBodies ? undefined : this.#workspace.bodies.keep(contentHash, body),
    ]);
    return contentHash;
  };

  /** Those of a sheet that was forgotten among many are read once more. */
  readonly rulesOf: RulesOf = async (contentHash) => {
    const known = this.#rules.get(contentHash);
    if (known) return known;
    const body = await this.#workspace.bodies.readIfSound(contentHash);
    return body ? this.#readRules(contentHash, body) : undefined;
  };

  #readRules(contentHash: string, body: Buffer): Promise<readonly StyleRule[] | undefined> {
    const rules = this.#thread.rules(body).catch((error: unknown) => {
      this.#fail(error);
      return undefined;
    });
    this.#rules.set(contentHash, rules, { size: body.length });
    return rules;
  }

  #fail(error: unknown): void {
    this.#failure ??= error instanceof Error ? error : new Error(messageOf(error));
  }

  /** Examines a vector image, whose body is kept with those of images. */
  examineVector(contentHash: string, body: Buffer): void {
    this.#begin(contentHash, () => [this.#examine(contentHash, body, 'vector')]);
  }

  #begin(contentHash: string, work: () => readonly unknown[]): void {
    if (this.#underWay.has(contentHash)) return;
    const done = Promise.all(work())
      // The crawl goes on, and whoever ends it is told.
      .catch((error: unknown) => this.#fail(error))
      .finally(() => this.#underWay.delete(contentHash));
    this.#underWay.set(contentHash, done);
  }

  async #examine(contentHash: string, body: Buffer, kind: ExaminedKind): Promise<void> {
    if (this.#workspace.texts.has(contentHash)) return;
    // To parse a style sheet takes as long as all else that is done with it.
    const read = kind === 'style' ? await this.#rules.get(contentHash) : undefined;
    const rules = read?.flatMap(({ start, end }) => [start, end]);
    this.#workspace.texts.add(await this.#thread.facts(contentHash, body, kind, rules));
  }

  /** Waits for what is under way by now. */
  async settled(): Promise<void> {
    await Promise.all(this.#underWay.values());
  }

  /** @throws whatever kept the texts or their facts from being kept. */
  async done(): Promise<void> {
    await this.settled();
    if (this.#failure) throw this.#failure;
  }
}
