import { pause } from '../../crawl/pacer.js';
import { watchLease } from '../../store/leases.js';
import type { RoundView } from '../../output/views/round.js';
import type { Workspace } from '../../store/workspace.js';
import { watchRound } from './round.js';
import { nextRound } from './schedule.js';
import type { WatchOptions } from './watch-options.js';

/** The longest that is waited at once: timers cannot wait longer, and clocks are set. */
const longestWait = 60_000;

/**
 * Surveys, clocks and judges a site, again and again, until it is stopped, or once. What it has done is kept: after a restart
 * it goes on as if it had never ended.
 *
 * @returns the last round; `undefined` if it was stopped before there was one
 * @throws BusyError when another program watches in the same workspace.
 */
export async function watch(
  workspace: Workspace,
  options: WatchOptions,
): Promise<RoundView | undefined> {
  const { every, signal, onRound } = options;
  const lease = workspace.leases.take(watchLease);
  let last: RoundView | undefined;
  try {
    while (!signal.aborted) {
      if (every !== null) await untilDue(workspace, every, options);
      if (signal.aborted) break;
      const round = await watchRound(workspace, options);
      const isLast = every === null || round.outcome === 'stopped';
      const next = isLast ? null : new Date(Date.parse(round.startedAt) + every).toISOString();
      last = { ...round, next };
      await onRound(last);
      if (isLast) break;
    }
  } finally {
    lease.release();
  }
  return last;
}

async function untilDue(
  { rounds }: Workspace,
  every: number,
  { signal, onRemark }: WatchOptions,
): Promise<void> {
  let told = false;
  for (;;) {
    const { wait, note } = nextRound(rounds.last(), every, Date.now());
    if (note !== null && !told) onRemark(note);
    told = true;
    if (wait === 0 || signal.aborted) return;
    await pause(Math.min(wait, longestWait), signal);
  }
}
