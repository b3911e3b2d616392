import type { VisitorSettings } from '../../browser/chromium/access.js';
import type { HostOptions } from '../survey/starts.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Network } from '../../core/visitors/network.js';
import type { View } from '../../core/visitors/view.js';
import type { ClockedPage } from '../../output/views/clock.js';
import type { TaskOptions } from '../progress.js';

export interface ClockOptions extends TaskOptions, HostOptions, VisitorSettings {
  readonly label?: string | undefined;
  readonly runs: number;
  readonly network: Network;
  readonly cpuFactor: number;
  readonly view: View;
  /** Milliseconds without traffic after which the network counts as quiet [500]. */
  readonly quietWindow?: number;
  /** Milliseconds within which the load event must fire; by default 120,000, or three times what is expected. */
  readonly timeout?: number | undefined;
  /** Does not wait for the quiet that `interactive` needs. */
  readonly noInteractive?: boolean;
  /** Films one extra load of each page at the end. */
  readonly film?: boolean;
  /** Bytes that the browser may have. */
  readonly memory?: number | undefined;
  /** Loads each page a second time, with the cache that its cold load left. */
  readonly warm?: boolean;
  /** The policy that the images of a survey are judged by; without it, no needed bytes are given. */
  readonly policy?: Policy;
  /** Name and version of the program, for the HAR file. */
  readonly creator: { readonly name: string; readonly version: string };
}

/** One page's session with what it comes to. */
export type ClockResult = ClockedPage;

export interface ClockOutcome {
  readonly results: readonly ClockResult[];
  readonly interrupted: boolean;
}
