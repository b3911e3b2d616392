import type { Run } from '../../load/session.js';
import { usableAt } from '../../load/usable.js';
import type { Network } from '../../visitors/network.js';
import type { FindingData } from '../finding.js';
import { backwardsOrder } from './backwards-order.js';
import { blockingChain } from './blocking-chain.js';
import { closedConnections } from './closed-connections.js';
import { connections } from './connections.js';
import { errors } from './errors.js';
import { heavyImage } from './heavy-image.js';
import { lateDiscovery } from './late-discovery.js';
import type { LoadCase, LoadFinding, LoadFindingKind } from './load-case.js';
import { longWait } from './long-wait.js';
import { redirects } from './redirects.js';
import { tail } from './tail.js';
import { thirdParties } from './third-parties.js';
import { unused } from './unused.js';

/** Every kind of finding about loads. */
export const loadFindings = [
  lateDiscovery,
  blockingChain,
  backwardsOrder,
  heavyImage,
  longWait,
  errors,
  redirects,
  unused,
  closedConnections,
  connections,
  thirdParties,
  tail,
] as const;

export type LoadFindingId = (typeof loadFindings)[number]['id'];

/**
 * The findings on a load, the most costly first; those on what happens after the page is usable come last.
 *
 * What the cache has answered costs nothing and is left out.
 *
 * @param neededBytes what a picture would weigh at its need, where that is known
 * @param servedHere hosts that the program itself serves from a folder
 */
export function loadFindingsOf(
  run: Run,
  network: Network | null,
  neededBytes: LoadCase['neededBytes'] = () => undefined,
  servedHere: LoadCase['servedHere'] = new Set(),
): LoadFinding[] {
  const requests = run.requests
    .filter(({ fromCache, transferBytes }) => !fromCache || transferBytes > 0)
    .sort((a, b) => a.start - b.start);
  const load: LoadCase = {
    requests,
    document: requests.find(({ type, redirectsTo }) => type === 'html' && redirectsTo === ''),
    usable: usableAt(run),
    largest: run.largest ?? null,
    firstScreen: run.firstScreen ? new Set(run.firstScreen) : null,
    network,
    neededBytes,
    servedHere,
  };
  const kinds: readonly LoadFindingKind<LoadFindingId, FindingData>[] = loadFindings;
  return kinds
    .flatMap((kind) => kind.check(load).map((evidence) => ({ id: kind.id, ...evidence })))
    .sort((a, b) => Number(a.late) - Number(b.late) || (b.cost ?? -1) - (a.cost ?? -1));
}
