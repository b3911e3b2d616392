import { setTimeout as after } from 'node:timers/promises';
import type { CDPSession } from 'playwright-core';
import type { NetworkRecorder } from './network-recorder.js';
import type { OtherProcesses } from './other-processes.js';

export interface QuietLimits {
  /** Milliseconds without traffic after which the network counts as quiet. */
  readonly quietWindow: number;
  /** Milliseconds that the quiet is waited for, at the most. */
  readonly settle: number;
}

/**
 * Waits until the network of a page has been quiet for its window. The driver knows the traffic of all processes, the
 * recorder that of the page to the last byte.
 */
export async function untilQuiet(
  cdp: CDPSession,
  recorder: NetworkRecorder,
  others: OtherProcesses,
  limits: QuietLimits,
): Promise<void> {
  const end = performance.now() + limits.settle;
  const isQuiet = () => {
    const rested = performance.now() - Math.max(recorder.lastActivity, others.lastActivity);
    return others.inFlight === 0 && rested >= limits.quietWindow;
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
