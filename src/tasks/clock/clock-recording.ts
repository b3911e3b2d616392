import { loadFindingsOf } from '../../core/findings/load/index.js';
import { medianRun, summariseSession } from '../../core/load/session.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Workspace } from '../../store/workspace.js';
import type { ClockResult } from './clock.js';
import { knownNeeds } from './known-needs.js';
import { withoutMutedLoads } from './muted-loads.js';
import { readHarFile } from './read-har.js';
import type { HarSessions } from './read-har.js';

/**
 * Reads a HAR file as if its pages had been loaded here, once each.
 *
 * @param workspace of a survey that knows what the images should weigh; left out where there is none
 * @throws NotFoundError when there is no such file; UsageError when it is not a HAR file.
 */
export async function clockRecording(
  workspace: Workspace | undefined,
  file: string,
  policy: Policy,
): Promise<{ results: readonly ClockResult[]; defects: HarSessions['defects'] }> {
  const needs = workspace && (await knownNeeds(workspace, policy));
  const { sessions, defects } = await readHarFile(file);
  const results = sessions.map((session): ClockResult => {
    const run = medianRun(session);
    const network = session.conditions?.network ?? null;
    const needed = needs?.(session.conditions?.view ?? null);
    return {
      session,
      summary: summariseSession(session),
      medianRun: run,
      findings: withoutMutedLoads(
        loadFindingsOf(run, network, (url) => needed?.get(url)),
        session.page,
        policy,
      ),
      film: null,
      harFile: file,
    };
  });
  return { results, defects };
}
