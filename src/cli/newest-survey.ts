import { hasFailed } from '../core/survey/failed-survey.js';
import { plainText } from '../output/words/plain-text.js';
import type { Workspace } from '../store/workspace.js';
import type { Log } from './log.js';

/**
 * Warns when the newest survey is taken, and is not whole: somebody who named none may not know. The newest whole one is
 * named beside it.
 *
 * @param label what was asked for; nobody is warned of a survey that they named
 */
export function warnOfNewest(workspace: Workspace, label: string | undefined, log: Log): void {
  if (label !== undefined) return;
  const surveys = workspace.surveys.list().reverse();
  const flaws = (id: number, finishedAt: string | null) => {
    if (finishedAt === null) return 'was interrupted';
    return hasFailed(workspace.pages.list(id)) ? 'reached no page' : null;
  };
  const [newest, ...others] = surveys;
  const flaw = newest && flaws(newest.id, newest.finishedAt);
  if (!flaw) return;
  const whole = others.find(({ id, finishedAt }) => flaws(id, finishedAt) === null);
  const instead = whole
    ? `: --survey ${JSON.stringify(plainText(whole.label))} takes the newest whole one`
    : '';
  log.warn(`the newest survey, ${plainText(newest.label)}, ${flaw}${instead}`);
}
