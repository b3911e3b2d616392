import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import type { Runner } from 'graphile-worker';
import { launchBrowser } from '../../browser/chromium/launch.js';
import { BrowserError, BusyError, WorkspaceError, messageOf } from '../../core/base/errors.js';
import { surveyLease } from '../../store/leases.js';
import { workerBeat } from '../../store/postgres/fleet.js';
import type { FleetStore } from '../../store/postgres/fleet.js';
import type { Workspace } from '../../store/workspace.js';
import { noTrace } from '../progress.js';
import { goOn } from '../survey/survey.js';
import type { SurveyOptions, SurveyResult } from '../survey/survey-options.js';
import { crewOf, fleetOf, takeTurn } from './crew.js';
import type { FleetSettings } from './crew.js';
import type { PartSummer } from '../sums/part-summer.js';
import { taskName } from './measures.js';
import { mostAttempts, silent } from './queue.js';
import { packed, taskWords } from './task.js';
import type { FleetAnswer, FleetTask } from './task.js';
import { VisitSession } from './visit-session.js';

/** What a worker tells as it goes. */
export type WorkerNews =
  | { readonly kind: 'ready'; readonly measures: string }
  | { readonly kind: 'leads'; readonly survey: string }
  | ({ readonly kind: 'finished' } & Pick<SurveyResult, 'survey' | 'pages' | 'skipped'>)
  | { readonly kind: 'failed'; readonly survey: string; readonly reason: string }
  | { readonly kind: 'left'; readonly tasks: number };

/** What is of the machine and not of the survey: how much it does at once, and what lets it in. */
export interface WorkerOptions extends Pick<
  SurveyOptions,
  'signal' | 'onTrace' | 'onNotice' | 'tabs' | 'memory' | 'accesses' | 'browserState'
> {
  readonly name?: string | undefined;
  /** What the measurements of this program depend on. */
  readonly measures: string;
  readonly onNews: (news: WorkerNews) => void;
}

/** Milliseconds after which a browser that no survey uses is closed. */
const idle = 30_000;

/** Milliseconds before a survey that failed is tried again by the same worker, at first and at most. */
const firstRest = 30_000;
const longestRest = 30 * 60_000;

/**
 * Takes tasks of any survey of a workspace until it is stopped: it loads pages, encodes images, and leads surveys that
 * nobody leads. What it holds when it is stopped it finishes.
 *
 * @throws WorkspaceError where surveys wait for workers that measure otherwise; BrowserError when no browser can be started,
 *   at the beginning or later on.
 */
export async function workForFleet(workspace: Workspace, options: WorkerOptions): Promise<void> {
  const { store, address } = fleetOf(workspace);
  refuseOthers(store, options.measures);
  // A worker without a browser would be the quickest of all at its tasks.
  const browser = await launchBrowser(undefined, { oneProcess: true, onNotice: options.onNotice });
  await browser.close();
  await new Worker(workspace, store, options).run(address);
}

function refuseOthers(store: FleetStore, measures: string): void {
  const other = store.unfinished().find((one) => one.measures !== '' && one.measures !== measures);
  if (!other) return;
  throw new WorkspaceError(
    `${other.label} is measured with ${other.measures}, and this machine has ${measures}`,
    { hint: 'use the same versions on all machines, or wait until that survey is finished' },
  );
}

class Worker {
  readonly #workspace: Workspace;
  readonly #store: FleetStore;
  readonly #options: WorkerOptions;
  /** Another one with each connection to the queue: what a broken one held is then nobody's, and is given out again. */
  #id = randomUUID();
  readonly #sessions = new Map<number, Promise<VisitSession>>();
  readonly #leading = new Map<number, Promise<void>>();
  /** Those that have ended, by whatever means. */
  readonly #deaf = new WeakSet<Runner>();
  readonly #givenUp = new Map<number, { readonly times: number; readonly until: number }>();
  #summer: PartSummer | undefined;
  #tasks = 0;
  /** Why it can do no more. */
  #failure: Error | undefined;
  readonly #end = new AbortController();

  constructor(workspace: Workspace, store: FleetStore, options: WorkerOptions) {
    this.#workspace = workspace;
    this.#store = store;
    const { signal } = options;
    const either = signal ? AbortSignal.any([signal, this.#end.signal]) : this.#end.signal;
    this.#options = { ...options, signal: either };
  }

  async run(address: string): Promise<void> {
    const { signal, measures, tabs, name = hostname(), onNews } = this.#options;
    const self = { name, host: hostname(), pid: process.pid, tabs, measures };
    let runner: Runner | undefined = await this.#listen(address);
    this.#store.join({ ...self, id: this.#id });
    onNews({ kind: 'ready', measures });
    try {
      while (!signal?.aborted) {
        // A server that went away takes the queue's own connections with it.
        if (runner && this.#deaf.has(runner)) {
          runner = undefined;
          this.#store.leave(this.#id);
          this.#id = randomUUID();
        }
        this.#store.join({ ...self, id: this.#id });
        runner ??= await this.#listen(address).catch(() => undefined);
        this.#lead();
        await this.#closeIdle();
        await pause(workerBeat, undefined, { signal }).catch(() => {});
      }
    } finally {
      // It goes on giving signs of life while it finishes what it holds.
      const beat = setInterval(() => this.#beat(), workerBeat);
      await Promise.all(this.#leading.values());
      await runner?.stop().catch(() => {});
      clearInterval(beat);
      for (const session of this.#sessions.values())
        await session.then((one) => one.close()).catch(() => {});
      this.#store.leave(this.#id);
      onNews({ kind: 'left', tasks: this.#tasks });
    }
    if (this.#failure) throw this.#failure;
  }

  #beat(): void {
    try {
      this.#store.beat(this.#id);
    } catch {
      // Whoever misses it gives the work to others, as it should be when the server is away for long.
    }
  }

  /** Begins to take tasks. */
  async #listen(address: string): Promise<Runner> {
    const { tabs, measures } = this.#options;
    const { run } = await import('graphile-worker');
    const runner = await run({
      connectionString: address,
      maxPoolSize: tabs + 2,
      concurrency: tabs,
      noHandleSignals: true,
      // News of tasks come at once; this is for those that waited for something.
      pollInterval: 2_000,
      logger: await silent(),
      // Without them, nobody waits for what a task that is done says to the queue: were the connection lost just then, the
      // program would end.
      preset: { worker: { completeJobBatchDelay: 0, failJobBatchDelay: 0 } },
      taskList: {
        [taskName(measures)]: (payload, { job }) =>
          this.#do(payload as FleetTask, job.attempts >= mostAttempts),
      },
    });
    runner.promise.then(
      () => this.#deaf.add(runner),
      () => this.#deaf.add(runner),
    );
    return runner;
  }

  /** Leads the surveys that nobody leads. */
  #lead(): void {
    const { measures, signal, onNews } = this.#options;
    for (const { id, label, measures: wanted } of this.#store.unfinished()) {
      if (Date.now() < (this.#givenUp.get(id)?.until ?? 0)) continue;
      if (this.#leading.has(id) || (wanted !== '' && wanted !== measures)) continue;
      if (this.#workspace.leases.isHeld(surveyLease(id))) continue;
      const settings = this.#store.settings(id) as FleetSettings | undefined;
      if (!settings) continue;
      const work = goOn(this.#workspace, this.#workspace.surveys.get(id), {
        ...this.#ofMachine(),
        ...settings,
        crew: crewOf(this.#workspace, measures, true, (survey) =>
          onNews({ kind: 'leads', survey }),
        ),
      })
        .then(({ interrupted, ...result }) => {
          if (!interrupted) onNews({ kind: 'finished', ...result });
        })
        .catch((error: unknown) => {
          // Another one was quicker.
          if (error instanceof BusyError || signal?.aborted) return;
          this.#giveUp(id);
          onNews({ kind: 'failed', survey: label, reason: messageOf(error) });
        })
        .finally(() => this.#leading.delete(id));
      this.#leading.set(id, work);
    }
  }

  /** Leaves a survey that failed to others for a while, longer each time. */
  #giveUp(id: number): void {
    const times = (this.#givenUp.get(id)?.times ?? 0) + 1;
    const rest = Math.min(longestRest, firstRest * 2 ** (times - 1));
    this.#givenUp.set(id, { times, until: Date.now() + rest });
  }

  /** Does a task, and answers it; what fails for the last time is answered with the reason. */
  async #do(task: FleetTask, isLast: boolean): Promise<void> {
    if (!this.#store.begin(task.key, task.survey, this.#id, taskWords(task))) return;
    try {
      const answer = await this.#answerTo(task);
      if (answer) this.#store.answer(task.key, packed(answer));
      else this.#store.release(task.key);
      this.#tasks++;
    } catch (error) {
      // The fault is not the task's: when this worker is gone, others get it.
      if (error instanceof BrowserError) return this.#fail(error);
      if (!isLast) throw error;
      this.#store.answer(task.key, packed({ failure: messageOf(error) }));
    }
  }

  #fail(error: Error): void {
    this.#failure ??= error;
    this.#end.abort();
  }

  /** @returns `undefined` where the survey wants nothing any more */
  async #answerTo(task: FleetTask): Promise<FleetAnswer | undefined> {
    const settings = this.#store.settings(task.survey) as FleetSettings | undefined;
    if (!settings) return undefined;
    if (task.kind === 'visit') {
      const session = await this.#sessionOf(task.survey, settings);
      await takeTurn(this.#store, task.url, settings.pace ?? 0, this.#options.signal);
      return { visit: await session.visit(task.url, task.view) };
    }
    if (task.kind === 'sum') return this.#sum(task, settings);
    const file = this.#workspace.images.get(task.contentHash);
    if (!file) return { failure: 'the image is not in the workspace' };
    const { encodeAndKeep } = await import('../survey/encode-file.js');
    await encodeAndKeep(this.#workspace, file, task.need, settings.policy);
    return { done: true };
  }

  async #sum(
    { survey, part, closing }: FleetTask & { readonly kind: 'sum' },
    settings: FleetSettings,
  ): Promise<FleetAnswer> {
    const { PartSummer } = await import('../sums/part-summer.js');
    // The parts of one survey come one after the other: what they have in common is read once.
    if (this.#summer?.closing !== closing)
      this.#summer = PartSummer.open(this.#workspace, survey, closing, settings);
    if (!this.#summer) return { failure: 'the survey is not summed up any more' };
    this.#summer.sum(part);
    return { done: true };
  }

  #sessionOf(id: number, settings: FleetSettings): Promise<VisitSession> {
    const known = this.#sessions.get(id);
    if (known) return known;
    const { surveys } = this.#workspace;
    const session = VisitSession.open(this.#workspace, surveys.get(id), surveys.plan(id), {
      ...this.#ofMachine(),
      ...settings,
    });
    this.#sessions.set(id, session);
    // The next task tries again.
    session.catch(() => this.#sessions.delete(id));
    return session;
  }

  #ofMachine() {
    const { tabs, memory, accesses, browserState, signal, onTrace, onNotice } = this.#options;
    const common = { tabs, memory, accesses, browserState };
    return { ...common, signal, onTrace: onTrace ?? noTrace, onNotice: onNotice ?? (() => {}) };
  }

  async #closeIdle(): Promise<void> {
    for (const [id, session] of this.#sessions) {
      const open = await session.catch(() => undefined);
      if (!open || open.isBusy || Date.now() - open.usedAt < idle) continue;
      this.#sessions.delete(id);
      await open.close();
    }
  }
}
