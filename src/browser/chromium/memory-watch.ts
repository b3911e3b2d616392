import { totalmem } from 'node:os';
import pidusage from 'pidusage';
import type { Browser, CDPSession } from 'playwright-core';

/** Milliseconds between two looks. */
const lookEvery = 500;

/** What the processes of a browser may take together where nobody says: half of the machine, and no more than this. */
const most = 6e9;

/** The default bound of a browser's memory, in bytes. */
export function usualMemory(): number {
  // In a container less than the machine has.
  const constrained = process.constrainedMemory?.() ?? 0;
  const whole = constrained > 0 ? Math.min(constrained, totalmem()) : totalmem();
  return Math.min(most, whole / 2);
}

/** Browsers whose memory is watched. */
const watched = new WeakMap<Browser, MemoryWatch>();

/**
 * Bounds the memory of a browser: when all of its processes together have too much, the renderer that has the most is
 * ended, and with it the page in it. Memory is what is resident (RSS), so what processes share counts several times.
 */
export class MemoryWatch {
  readonly #cdp: CDPSession;
  readonly #limit: number;
  #timer: NodeJS.Timeout | undefined;
  #isLooking = false;
  #endedAt = -Infinity;

  private constructor(cdp: CDPSession, limit: number) {
    this.#cdp = cdp;
    this.#limit = limit;
  }

  /** Begins to watch; ends with the browser. */
  static async start(browser: Browser, limit: number): Promise<void> {
    const watch = new MemoryWatch(await browser.newBrowserCDPSession(), limit);
    watched.set(browser, watch);
    watch.#timer = setInterval(() => void watch.#look(), lookEvery);
    watch.#timer.unref();
    browser.once('disconnected', () => clearInterval(watch.#timer));
  }

  /** In words why a page of a browser crashed, if it was for its memory. */
  static reasonFor(browser: Browser | null): string | undefined {
    const watch = browser ? watched.get(browser) : undefined;
    if (!watch || performance.now() - watch.#endedAt > news) return undefined;
    return `it was stopped because the browser had more than ${(watch.#limit / 1e9).toFixed(1)} GB of memory`;
  }

  async #look(): Promise<void> {
    // A browser that is slow to say is not asked twice.
    if (this.#isLooking) return;
    this.#isLooking = true;
    try {
      const { processInfo } = await this.#cdp.send('SystemInfo.getProcessInfo');
      const usage = await pidusage(processInfo.map(({ id }) => id));
      const memoryOf = (id: number) => usage[id]?.memory ?? 0;
      const sum = processInfo.reduce((all, { id }) => all + memoryOf(id), 0);
      if (sum <= this.#limit) return;
      const [largest] = processInfo
        .filter(({ type }) => type === 'renderer')
        .sort((a, b) => memoryOf(b.id) - memoryOf(a.id));
      if (!largest) return;
      this.#endedAt = performance.now();
      process.kill(largest.id, 'SIGKILL');
    } catch {
      // The browser has just gone, or one of its processes has.
    } finally {
      this.#isLooking = false;
    }
  }
}

/** Milliseconds within which a crash is told. */
const news = 5_000;
