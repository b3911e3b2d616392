import { setTimeout as after } from 'node:timers/promises';
import type { BrowserContext, Page } from 'playwright-core';
import type { Access } from '../../core/address/access.js';
import type { View } from '../../core/visitors/view.js';
import type { BodyCollector } from '../network/bodies.js';
import { sendHeaders } from '../chromium/access.js';
import { NetworkRecorder } from '../network/network-recorder.js';
import type { TextCollector } from '../network/texts.js';
import type { WireBytes } from '../network/wire-bytes.js';
import { Coverage } from './coverage.js';
import { openChannel } from '../chromium/direct-channel.js';
import type { Channel } from '../chromium/channel.js';
import { MemoryWatch } from '../chromium/memory-watch.js';
import { openWindow } from '../chromium/own-window.js';
import { outOfSight } from './out-of-sight.js';

export interface TabOptions {
  readonly context: BrowserContext;
  readonly view: View;
  readonly bodies: BodyCollector;
  readonly texts: TextCollector;
  /** What addresses weighed when they were fetched; shared by the tabs of a context. */
  readonly wireBytes: WireBytes;
  /** Credentials for the hosts that require them. */
  readonly accesses?: readonly Access[];
}

/** A tab that visits pages one after another, each with nothing left of the page before. */
export class Tab {
  readonly page: Page;
  readonly cdp: Channel;
  readonly recorder: NetworkRecorder;
  readonly coverage: Coverage;
  /** Rejects when the renderer crashes; pending while it lives. */
  readonly crashed: Promise<never>;
  readonly #view: View;
  #visits = 0;

  private constructor(
    page: Page,
    cdp: Channel,
    recorder: NetworkRecorder,
    coverage: Coverage,
    view: View,
  ) {
    this.page = page;
    this.cdp = cdp;
    this.recorder = recorder;
    this.coverage = coverage;
    this.#view = view;
    this.crashed = new Promise<never>((_, reject) => {
      page.once('crash', () => {
        const reason = MemoryWatch.reasonFor(page.context().browser());
        reject(new Error(reason ?? 'the page crashed its renderer'));
      });
    });
    this.crashed.catch(() => {});
    page.on('popup', (popup) => void popup.close().catch(() => {}));
  }

  static async open({
    context,
    view,
    bodies,
    texts,
    wireBytes,
    accesses = [],
  }: TabOptions): Promise<Tab> {
    const page = await openWindow(context);
    const cdp = await openChannel(page);
    const recorder = await NetworkRecorder.attach(cdp);
    bodies.watch(cdp, recorder);
    texts.watch(cdp, recorder);
    wireBytes.watch(recorder);
    await sendHeaders(cdp, accesses);
    await cdp.send('Page.enable');
    await cdp.send('Emulation.setDeviceMetricsOverride', metricsOf(view));
    const coverage = await Coverage.start(cdp);
    return new Tab(page, cdp, recorder, coverage, view);
  }

  get visits(): number {
    return this.#visits;
  }

  /**
   * Leaves the page, and forgets it: what the renderer keeps of decoded pictures would let the next page
   * choose larger candidates of a `srcset` than a visitor gets. The network's cache stays.
   */
  async leave(): Promise<void> {
    this.#visits++;
    await this.page.goto('about:blank');
    await Promise.all([
      // To disable the cache drops what the renderer holds in memory; on disk it stays.
      this.cdp.send('Network.setCacheDisabled', { cacheDisabled: true }),
      this.cdp.send('Network.setCacheDisabled', { cacheDisabled: false }),
      this.cdp.send('Emulation.setDeviceMetricsOverride', metricsOf(this.#view)),
    ]);
    await Promise.all([this.recorder.restart(), this.coverage.restart()]);
  }

  /** Closes it, without waiting for one that does not respond. */
  async close(): Promise<void> {
    const closed = this.page.close().catch(() => {});
    await Promise.race([closed, after(closing, undefined, { ref: false })]);
  }
}

/** Milliseconds that a tab may take to close. */
const closing = 5_000;

/** Restores the screen of a view, which a sweep has changed. */
function metricsOf({ width, height, density, touch }: View) {
  const upright = touch && height >= width;
  return {
    width,
    height,
    screenWidth: width,
    screenHeight: height,
    deviceScaleFactor: density,
    viewport: outOfSight,
    mobile: touch,
    screenOrientation: upright
      ? ({ type: 'portraitPrimary', angle: 0 } as const)
      : ({ type: 'landscapePrimary', angle: touch ? 90 : 0 } as const),
  };
}
