import type { Run, Session } from './session.js';

/** A session with the markers of its runs alone, of which many can be held in memory. */
export interface MarkedSession extends Omit<Session, 'runs'> {
  readonly runs: readonly Pick<Run, 'markers' | 'failure'>[];
}

/**
 * What must be the same for loads to be set against each other over time: their page, line, view, processor and cache. The
 * browser may be a newer one.
 */
export function conditionsKey({
  page,
  conditions,
}: Pick<MarkedSession, 'page' | 'conditions'>): string {
  const { network, view, cpuFactor, cache, connecting } = conditions ?? {};
  return JSON.stringify([page, network, view, cpuFactor, cache, connecting]);
}
