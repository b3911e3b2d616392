import { UsageError } from '../core/base/errors.js';
import { modelOf } from '../core/load/load-model.js';
import { countedRuns, medianRun } from '../core/load/session.js';
import type { Session } from '../core/load/session.js';
import type { TimedPage } from '../core/rank/row-times.js';
import { describeNetwork } from '../core/visitors/network.js';
import type { Network } from '../core/visitors/network.js';
import type { Workspace } from '../store/workspace.js';
import type { RankResult } from './rank.js';

/** The loads of pages of a survey that their times are predicted from. */
export interface TimedPages {
  readonly pages: readonly TimedPage[];
  readonly network: Network;
}

/** Part by which a file on the wire may differ from the one that was surveyed. */
const sameBytes = 0.02;

/**
 * The sessions of pages as they were surveyed: of each page and view the one that was sent most of the images of the
 * survey, the newest of several. All are of one network, that of the newest.
 *
 * @returns `undefined` when there are none
 */
export function findTimedPages(
  workspace: Workspace,
  { ledger, images }: Pick<RankResult, 'ledger' | 'images'>,
): TimedPages | undefined {
  const { visits } = ledger.facts;
  const surveyed = new Set(visits.map(({ page, view }) => `${page}\n${view}`));
  const keyOf = ({ page, conditions }: Session) => `${page}\n${conditions?.view.name}`;
  const cold = workspace.sessions
    .ofPages([...new Set(visits.map(({ page }) => page))])
    .filter((session) => surveyed.has(keyOf(session)) && session.conditions?.cache === 'cold')
    .filter((session) => countedRuns(session).length > 0);
  const bytes = new Map(images.flatMap(({ urls, file }) => urls.map((url) => [url, file.bytes])));
  /** How many images a session was sent as they were surveyed. */
  const sameAs = (session: Session) =>
    medianRun(session).requests.filter(({ url, transferBytes }) => {
      const known = bytes.get(url) ?? 0;
      return known > 0 && Math.abs(transferBytes - known) <= known * sameBytes + 1_000;
    }).length;
  const best = new Map<string, { session: Session; same: number }>();
  for (const session of cold) {
    const same = sameAs(session);
    const before = best.get(keyOf(session));
    if (same > 0 && (!before || same >= before.same)) best.set(keyOf(session), { session, same });
  }
  const sessions = [...best.values()].map(({ session }) => session);
  const newest = sessions.reduce<Session | undefined>(
    (last, one) => (last && last.id > one.id ? last : one),
    undefined,
  );
  if (!newest) return undefined;
  const { network } = newest.conditions!;
  const onIt = ({ conditions }: Session) =>
    describeNetwork(conditions!.network) === describeNetwork(network);
  return {
    network,
    pages: sessions.filter(onIt).map((session) => ({
      page: session.page,
      view: session.conditions!.view.name,
      model: modelOf(medianRun(session), network),
    })),
  };
}

/** @throws UsageError when no page of the survey was timed. */
export function timedPages(
  workspace: Workspace,
  result: Pick<RankResult, 'ledger' | 'images'>,
): TimedPages {
  const found = findTimedPages(workspace, result);
  if (!found)
    throw new UsageError('no page of this survey has been timed: nothing is known of its loads', {
      hint: 'run zealous-lynx clock PAGE first, in a view of the survey',
    });
  return found;
}
