import { setTimeout as after } from 'node:timers/promises';
import type { Channel } from '../chromium/channel.js';
import type { NetworkRecorder } from './network-recorder.js';

export interface QuietLimits {
  /** Milliseconds without traffic after which the network counts as quiet. */
  readonly quietWindow: number;
  /** The most milliseconds to wait for quiet. */
  readonly settle: number;
}

/** Waits until the network of a page has been quiet for the quiet window. */
export async function untilQuiet(
  cdp: Channel,
  recorder: NetworkRecorder,
  limits: QuietLimits,
): Promise<void> {
  const end = performance.now() + limits.settle;
  const isQuiet = () => {
    const rested = performance.now() - recorder.lastActivity;
    return recorder.inFlight === 0 && rested >= limits.quietWindow;
  };
  while (performance.now() < end) {
    if (isQuiet()) {
      // What the page has asked for in the meantime is told before its answer to this.
      await cdp.send('Runtime.evaluate', { expression: '0' });
      if (isQuiet()) return;
    }
    await after(50);
  }
}
