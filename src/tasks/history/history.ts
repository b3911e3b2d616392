import { NotFoundError } from '../../core/base/errors.js';
import { disagreements } from '../../core/history/disagreements.js';
import type { FigureMeasure, SurveyFigures } from '../../core/history/figures.js';
import { movement } from '../../core/history/movement.js';
import type { Movement } from '../../core/history/movement.js';
import { seriesOfField, seriesOfSessions, seriesOfSurveys } from '../../core/history/series.js';
import type { Series, SeriesStep } from '../../core/history/series.js';
import type { MarkerName } from '../../core/load/markers.js';
import { readField } from '../../crawl/field-file.js';
import type { HistoryView } from '../../output/views/history.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import { siteOf } from './site-of.js';
import { siteSessions } from './site-sessions.js';
import { figuresOf } from './survey-numbers.js';
import type { NumbersOptions } from './survey-numbers.js';

export interface HistoryOptions extends NumbersOptions {
  /** A host of the site; the site of the newest survey if it is left out. */
  readonly site?: string | undefined;
  /** Labels of two surveys; the two newest if they are left out. */
  readonly between?: readonly [before: string, after: string] | undefined;
  readonly measure: FigureMeasure;
  /** File of what visitors measured. */
  readonly field?: string | undefined;
}

/** What was measured of a site over time. */
export type History = Omit<HistoryView, 'top'>;

/** The markers that are followed over time: what visitors feel, and what servers do. */
const followed: readonly MarkerName[] = [
  'ttfb',
  'firstContentfulPaint',
  'largestContentfulPaint',
  'load',
  'blockingTime',
  'layoutShift',
];

/**
 * Puts together what was measured of a site over time, by surveys, by loads and by visitors.
 *
 * @throws NotFoundError when there is no survey of it, or none with a label that was given.
 */
export async function history(workspace: Workspace, options: HistoryOptions): Promise<History> {
  const { signal, onProgress = noProgress, measure } = options;
  const site = siteOf(workspace, options.site);
  const surveys: SurveyFigures[] = [];
  for (const [done, one] of site.surveys.entries()) {
    if (signal?.aborted) break;
    onProgress({ stage: 'figures', done, total: site.surveys.length, doing: one.label });
    surveys.push(await figuresOf(workspace, one, options));
  }
  const sessions = siteSessions(workspace, site);
  const field = options.field === undefined ? [] : seriesOfField(readField(options.field));
  const clocked = seriesOfSessions(sessions, followed);
  const series = [...seriesOfSurveys(surveys), ...clocked, ...field];
  return {
    hosts: site.hosts,
    surveys,
    thinned: site.surveys.flatMap(({ label, thinnedAt }) => (thinnedAt === null ? [] : label)),
    leftOut: site.leftOut.map(({ label }) => label),
    series,
    steps: series.flatMap((one) =>
      one.steps.map((step) => ({ series: one, step, moved: movedAt(surveys, one, step) })),
    ),
    moved: movedOf(surveys, measure, options.between),
    disagreements: disagreements(field, clocked),
  };
}

/** What moved between the surveys around a step; of loads and visitors, those that were the newest at the time. */
function movedAt(
  surveys: readonly SurveyFigures[],
  { key }: Series,
  { from, point }: SeriesStep,
): Movement | null {
  const [before, after] = [from, point].map(({ at }) =>
    surveys.findLast(({ survey }) => survey.startedAt <= at),
  );
  // What changed between two loads may have been surveyed only after them.
  const later =
    after === before ? surveys.find(({ survey }) => survey.startedAt > point.at) : after;
  if (!before || !later || before === later) return null;
  return movement(before, later, key.includes('waste') ? 'waste' : 'bytes');
}

function movedOf(
  surveys: readonly SurveyFigures[],
  measure: FigureMeasure,
  between: HistoryOptions['between'],
): Movement | null {
  if (!between) {
    const [before, after] = surveys.slice(-2);
    return before && after ? movement(before, after, measure) : null;
  }
  const [before, after] = between.map((label) => {
    const found = surveys.findLast(({ survey }) => survey.label === label);
    if (found) return found;
    const known = surveys.map(({ survey }) => survey.label);
    throw new NotFoundError(`the history of this site has no survey ${label}`, {
      hint: `there are: ${known.join(', ')}`,
    });
  }) as [SurveyFigures, SurveyFigures];
  return movement(before, after, measure);
}
