import { UsageError } from '../core/base/errors.js';
import type { Policy } from '../core/policy/policy.js';
import { compareSurveysDocument } from '../output/json/compare-surveys.js';
import { compareSurveysCsv, compareSurveysMarkdown } from '../output/survey-change-table.js';
import { drawSurveyComparison } from '../output/terminal/compare-surveys.js';
import type { Workspace } from '../store/workspace.js';
import type { Io } from './io.js';
import type { RequestSettings } from './request-options.js';

interface Settings extends RequestSettings {
  readonly before: string;
  readonly after: string;
  readonly csv: boolean;
  readonly markdown: boolean;
  readonly waterfalls: boolean;
  readonly looks?: string | undefined;
}

/**
 * Prints two surveys side by side.
 *
 * @throws UsageError when something is asked for that only loads have.
 */
export async function compareTwoSurveys(
  workspace: Workspace,
  settings: Settings,
  policy: Policy,
  { screen, task, print, say }: Io,
): Promise<number> {
  refuseLoads(settings);
  const { compareSurveyLabels } = await import('../tasks/compare-surveys.js');
  const { before, after, top, csv, markdown } = settings;
  const sheet = await compareSurveyLabels(workspace, before, after, policy, task);
  if (csv) say(compareSurveysCsv(sheet));
  else if (markdown) say(compareSurveysMarkdown(sheet));
  else
    print(
      () => drawSurveyComparison(sheet, top, screen),
      () => compareSurveysDocument(sheet),
    );
  return task.signal.aborted ? 130 : 0;
}

function refuseLoads({ waterfalls, svg, png, looks, only, host }: Settings): void {
  const asked = {
    waterfalls,
    svg: svg !== undefined,
    png: png !== undefined,
    looks: looks !== undefined,
    only: only.length > 0,
    host: host.length > 0,
  };
  const [first] = Object.entries(asked).flatMap(([name, given]) => (given ? [name] : []));
  if (first !== undefined)
    throw new UsageError(`--${first} is of loads, and surveys have none`, {
      hint: 'leave it out, or compare sessions of clock without --surveys',
    });
}
