import type { SurveyHead } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';
import { beginForOthers } from '../survey/survey.js';
import type { SurveyOptions } from '../survey/survey-options.js';
import { fleetOf, fleetSettingsOf } from './crew.js';

/**
 * Begins a survey and leaves all of its work to the workers of the workspace.
 *
 * @throws UsageError for a workspace that is no server's, or a folder of this machine.
 */
export async function handOverSurvey(
  workspace: Workspace,
  starts: readonly string[],
  options: SurveyOptions,
): Promise<SurveyHead> {
  const { store } = fleetOf(workspace);
  const head = await beginForOthers(workspace, starts, options);
  // Whichever worker leads it first says by which versions it is measured.
  store.offer(head.id, fleetSettingsOf(options), '');
  return head;
}
