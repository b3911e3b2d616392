import type { SurveyBrowser } from '../../browser/visit/survey-browser.js';
import type { Visit } from '../../browser/visit/visit-result.js';
import type { SurveyPlan, SurveyHead } from '../../core/survey/survey.js';
import type { Scope } from '../../crawl/scope.js';
import type { Workspace } from '../../store/workspace.js';
import { TextThread } from '../../texts/text-thread.js';
import { openStarts } from '../survey/starts.js';
import type { WorkOptions } from '../survey/survey-options.js';
import { openBrowser } from '../survey/survey-work.js';
import { TextWork } from '../survey/text-work.js';

/** A browser of a worker with the settings of one survey. */
export class VisitSession {
  readonly #browser: SurveyBrowser;
  readonly #thread: TextThread;
  readonly #texts: TextWork;
  readonly #close: () => Promise<void>;
  readonly #free: number[];
  /** When it was used last, in milliseconds since 1970. */
  usedAt = Date.now();
  #busy = 0;

  private constructor(
    browser: SurveyBrowser,
    thread: TextThread,
    texts: TextWork,
    close: () => Promise<void>,
  ) {
    this.#browser = browser;
    this.#thread = thread;
    this.#texts = texts;
    this.#close = close;
    this.#free = browser.visitors.map((_, tab) => tab);
  }

  /** @throws BrowserError when no browser can be started. */
  static async open(
    workspace: Workspace,
    head: SurveyHead,
    { given, hosts }: SurveyPlan,
    options: Omit<WorkOptions, 'views' | 'scope'>,
  ): Promise<VisitSession> {
    const open = await openStarts(given, options, hosts);
    const thread = new TextThread();
    const texts = new TextWork(workspace, thread, options.noBodies ?? false);
    const scope: Scope = { pages: Infinity };
    const all = { ...options, views: head.views, scope };
    try {
      const browser = await openBrowser(workspace, open, all, texts);
      return new VisitSession(browser, thread, texts, () => open.close());
    } catch (error) {
      await thread.close();
      await open.close();
      throw error;
    }
  }

  get isBusy(): boolean {
    return this.#busy > 0;
  }

  /** Loads a page in one view, and keeps all that it was sent before it answers. */
  async visit(url: string, view: number): Promise<Visit> {
    this.#busy++;
    // A queue hands out no more than there are tabs.
    const tab = this.#free.pop() ?? 0;
    try {
      const visit = await this.#browser.visitors[tab]!.views[view]!.visit(url);
      await this.#texts.settled();
      return visit;
    } finally {
      this.#free.push(tab);
      this.#busy--;
      this.usedAt = Date.now();
    }
  }

  async close(): Promise<void> {
    await this.#browser.close();
    await this.#texts.settled();
    await this.#thread.close();
    await this.#close();
  }
}
