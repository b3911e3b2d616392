import type { SurveyHead } from '../../core/survey/survey.js';
import type { WorkspaceCheck } from '../../output/views/surveys.js';
import type { Workspace } from '../../store/workspace.js';

/**
 * Holds what a workspace keeps against what it should be. Bodies that are damaged are taken away: what is missing is
 * fetched or made again by whoever needs it.
 *
 * @param heads the surveys whose bodies are read
 */
export async function checkWorkspace(
  workspace: Workspace,
  heads: readonly SurveyHead[],
): Promise<WorkspaceCheck> {
  const database = workspace.problems();
  // What is known of the bodies stands in the database.
  if (database.length > 0) return { database, bodies: 0, damaged: 0, missing: 0 };
  const named = new Set(
    heads.flatMap(({ id }) => [
      ...workspace.pages
        .files(id)
        .filter(({ problem }) => problem === null)
        .map(({ contentHash }) => contentHash),
      ...workspace.encodes.resultsOf(id),
      ...workspace.pages.textHashes(id),
    ]),
  );
  const missing = [...named].filter((hash) => !workspace.bodies.has(hash)).length;
  const damaged = (await workspace.bodies.weedOut(named)).length;
  return { database, bodies: named.size, damaged, missing };
}
