import type { HostMap } from '../../browser/chromium/host-map.js';
import type { LoadFinding } from '../../core/findings/load/load-case.js';
import type { Run, Session, SessionSummary } from '../../core/load/session.js';
import type { Film } from '../../core/pixels/film.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Network } from '../../core/visitors/network.js';
import type { View } from '../../core/visitors/view.js';
import type { TaskOptions } from '../progress.js';

export interface ClockOptions extends TaskOptions {
  readonly label?: string | undefined;
  readonly runs: number;
  readonly network: Network;
  readonly cpuFactor: number;
  readonly view: View;
  /** Milliseconds without traffic after which the network counts as quiet [500]. */
  readonly quietWindow?: number;
  /** Does not wait for the rest that `interactive` asks for. */
  readonly noInteractive?: boolean;
  /** Films one extra load of each page at the end. */
  readonly film?: boolean;
  /** Loads each page a second time, with the cache that its cold load left. */
  readonly warm?: boolean;
  readonly hosts?: HostMap;
  /** What the images of a survey are judged by; left out, nothing is said of what they should weigh. */
  readonly policy?: Policy;
  /** Name and version of the program, for the HAR file. */
  readonly creator: { readonly name: string; readonly version: string };
}

/** One page's session with what it comes to. */
export interface ClockResult {
  readonly session: Session;
  readonly summary: SessionSummary;
  readonly medianRun: Run;
  /** What stands out in the median run. */
  readonly findings: readonly LoadFinding[];
  /** How the page came to look as it does; `null` where it was not filmed. */
  readonly film: Film | null;
  /** Where the HAR file of the median run lies. */
  readonly harFile: string;
}

export interface ClockOutcome {
  readonly results: readonly ClockResult[];
  readonly interrupted: boolean;
}
