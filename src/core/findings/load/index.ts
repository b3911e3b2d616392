import type { Network } from '../../visitors/network.js';
import type { Run } from '../../load/session.js';
import { backwardsOrder } from './backwards-order.js';
import { blockingChain } from './blocking-chain.js';
import { connections } from './connections.js';
import { detours } from './detours.js';
import { heavyImage } from './heavy-image.js';
import { lateDiscovery } from './late-discovery.js';
import type { LoadCase, LoadCheck, LoadFinding } from './load-case.js';
import { longWait } from './long-wait.js';
import { tail } from './tail.js';
import { thirdParties } from './third-parties.js';
import { unused } from './unused.js';

/** Every check there is; a new one is a file here and a word in this list. */
const checks: readonly LoadCheck[] = [
  lateDiscovery,
  blockingChain,
  backwardsOrder,
  heavyImage,
  longWait,
  detours,
  unused,
  connections,
  thirdParties,
  tail,
];

/**
 * What an analyst would point at in a load, the most costly first; what happens after the page is usable comes last.
 *
 * @param neededBytes what a picture would weigh at its need, where that is known
 */
export function loadFindingsOf(
  run: Run,
  network: Network | null,
  neededBytes: LoadCase['neededBytes'] = () => undefined,
): LoadFinding[] {
  const requests = [...run.requests].sort((a, b) => a.start - b.start);
  const load: LoadCase = {
    requests,
    document: requests.find(({ type, redirectsTo }) => type === 'html' && redirectsTo === ''),
    usable: usableAt(run),
    largest: run.largest ?? null,
    firstScreen: run.firstScreen ? new Set(run.firstScreen) : null,
    network,
    neededBytes,
  };
  const found = checks.flatMap((check) => check(load) ?? []);
  return found.sort((a, b) => Number(a.late) - Number(b.late) || (b.cost ?? -1) - (a.cost ?? -1));
}

/**
 * When a page could be used, in milliseconds since the navigation began: when it was interactive and its largest
 * content was painted; where neither is known, when it was loaded.
 */
export function usableAt({ markers }: Pick<Run, 'markers'>): number | null {
  const { interactive, largestContentfulPaint, load } = markers;
  if (interactive === null || largestContentfulPaint === null)
    return interactive ?? largestContentfulPaint ?? load;
  return Math.max(interactive, largestContentfulPaint);
}
