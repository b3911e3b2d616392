import type { Round } from '../../store/rounds.js';

/** When the next round is due, and why, where that is not simply the interval. */
export interface NextRound {
  /** Milliseconds from now; 0 for at once. */
  readonly wait: number;
  /** What a person should know; `null` where there is nothing. */
  readonly note: string | null;
}

/**
 * The time until the next round, counted from the beginning of the last, which may have been made by a program that has
 * ended since.
 *
 * @param every milliseconds from one round to the next
 * @param now milliseconds since 1970
 */
export function nextRound(last: Round | undefined, every: number, now: number): NextRound {
  if (!last) return { wait: 0, note: null };
  const passed = now - Date.parse(last.startedAt);
  if (passed < 0)
    return {
      wait: 0,
      note: `the clock of this machine went backwards: the last round began on ${last.startedAt}, which is still to come`,
    };
  // A round that did not come to its end is made again.
  if (last.outcome === 'running' || last.outcome === 'stopped')
    return { wait: 0, note: `the round of ${last.startedAt} did not come to its end` };
  return { wait: Math.max(0, every - passed), note: null };
}
