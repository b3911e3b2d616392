import { hasFailed } from '../../core/survey/failed-survey.js';
import { hostOf } from '../../core/address/address.js';
import type { SurveyHead, SurveySummary } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';
import { resumeSurvey, survey } from '../survey/survey.js';
import { surveyChanged } from '../survey/survey-changed.js';
import type { SurveyResult } from '../survey/survey.js';
import type { WatchOptions } from './watch-options.js';

/** What became of the survey of a round. */
export interface RoundSurvey {
  /** `null` where no page could be measured: nothing of it is kept. */
  readonly head: SurveyHead | null;
  /** Why not, in words; empty where it was. */
  readonly problem: string;
  readonly interrupted: boolean;
}

/**
 * Surveys the site of a watch: goes on with a survey that a killed round left, visits what may have changed, or everything.
 * A survey that reached no page is taken away: in the history it would be a fall to zero that never was.
 */
export async function surveyRound(
  workspace: Workspace,
  options: WatchOptions,
  label: string,
): Promise<RoundSurvey> {
  const { pages, survey: head, interrupted } = await resultOf(workspace, options, label);
  if (interrupted) return { head: null, problem: '', interrupted };
  if (!hasFailed(pages)) return { head, problem: '', interrupted };
  const problem = pages.find(({ error }) => error !== null)?.error ?? 'no page was found';
  workspace.surveys.delete(head.id);
  workspace.pages.forget();
  return { head: null, problem, interrupted };
}

async function resultOf(
  workspace: Workspace,
  { starts, survey: settings, fullEvery, signal, onProgress, label: prefix }: WatchOptions,
  label: string,
): Promise<SurveyResult> {
  const options = { ...settings, signal, onProgress };
  const own = ownSurveys(workspace, prefix, starts);
  const newest = own.at(-1);
  if (newest?.finishedAt === null && pagesIn(workspace, newest) > 0)
    return resumeSurvey(workspace, { ...options, survey: newest.label });
  const whole = own.filter(
    ({ finishedAt, thinnedAt }) => finishedAt !== null && thinnedAt === null,
  );
  const sinceFull = whole.toReversed().findIndex(({ id }) => workspace.pages.takenOver(id) === 0);
  // Only one that visited everything can be taken over from for a while.
  const isFullDue = sinceFull < 0 || sinceFull + 1 >= fullEvery;
  return isFullDue
    ? survey(workspace, starts, { ...options, label })
    : surveyChanged(workspace, { ...options, since: whole.at(-1)!.label, label });
}

/** The surveys that this watch made, the oldest first. */
function ownSurveys(
  { surveys }: Workspace,
  prefix: string,
  starts: readonly string[],
): SurveySummary[] {
  const hosts = new Set(starts.filter((start) => URL.canParse(start)).map(hostOf));
  return surveys
    .list()
    .filter(
      ({ label, starts: of }) =>
        label.startsWith(`${prefix}-`) &&
        (hosts.size === 0 || of.some((start) => hosts.has(hostOf(start)))),
    );
}

function pagesIn({ pages }: Workspace, { id }: SurveySummary): number {
  return pages.list(id).length;
}
