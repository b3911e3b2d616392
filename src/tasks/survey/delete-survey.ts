import type { SurveyHead } from '../../core/survey/survey.js';
import { isAtWorkOnSurveys } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';

/**
 * Takes a survey away, with the images and encodes that no other one needs.
 *
 * @throws NotFoundError when there is no such survey; BusyError while another program makes one: it may have found the same
 *   images, and not stored yet where.
 */
export async function deleteSurvey(workspace: Workspace, label: string): Promise<SurveyHead> {
  const head = workspace.surveys.find(label);
  workspace.leases.refuse(isAtWorkOnSurveys);
  // The rows go first: a body that is left over wastes room, one that is missing breaks a survey.
  const orphans = workspace.surveys.delete(head.id);
  for (const hash of orphans) await workspace.bodies.delete(hash);
  workspace.tidy();
  return head;
}
