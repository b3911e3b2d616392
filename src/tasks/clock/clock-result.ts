import { join } from 'node:path';
import { PageError } from '../../core/base/errors.js';
import { loadFindingsOf } from '../../core/findings/load/index.js';
import { countedRuns, medianRun, summariseSession } from '../../core/load/session.js';
import type { Session } from '../../core/load/session.js';
import { harOf } from '../../output/json/har.js';
import { jsonText } from '../../output/json/json-text.js';
import { writeWhole } from '../../store/write-whole.js';
import { withoutMutedLoads } from './muted-loads.js';
import type { Workspace } from '../../store/workspace.js';
import type { ClockOptions, ClockResult } from './clock-options.js';

/** Failures that credentials may mend. */
const signInWords = /sign in|returned 40[13]/;

/**
 * What a session comes to; writes the HAR file of its median run.
 *
 * @param needed what images would weigh at their need, in bytes by address
 * @throws PageError when no load of the page succeeded.
 */
export async function resultOf(
  workspace: Workspace,
  session: Session,
  needed: ReadonlyMap<string, number>,
  { creator, network, policy }: ClockOptions,
  servedHere: ReadonlySet<string>,
): Promise<Omit<ClockResult, 'film'>> {
  if (countedRuns(session).length === 0) {
    const failure = session.runs[0]?.failure ?? 'no load was made';
    throw new PageError(`${session.page} could not be loaded: ${failure}`, {
      hint: signInWords.test(failure)
        ? 'sign in with --browser-state, --cookie, --basic or --header'
        : 'check the address; for a host that only this machine knows, see --map-host',
    });
  }
  const run = medianRun(session);
  const harFile = join(workspace.folder, 'har', `session-${session.id}.har`);
  await writeWhole(harFile, `${jsonText(harOf(session, run, creator))}\n`);
  const found = loadFindingsOf(run, network, (url) => needed.get(url), servedHere);
  const findings = withoutMutedLoads(found, session.page, policy);
  return { session, summary: summariseSession(session), medianRun: run, findings, harFile };
}
