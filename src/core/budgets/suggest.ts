import { groupBy } from '../base/group-by.js';
import { medianInterval } from '../load/bootstrap.js';
import { countedRuns } from '../load/session.js';
import type { MarkedSession } from '../load/marked-session.js';
import { summarise } from '../base/summary.js';
import type { Budget } from './budget.js';
import { previous } from './budget.js';
import { budgetName } from './budget-name.js';
import type { MeasuredSurvey } from './measured-survey.js';
import { surveyMeasures } from './measures/index.js';

/** What a suggested limit leaves above what is measured today: a tenth, rounded up. */
const margin = 1.1;
/** The most page groups that get budgets of their own: those with the most visits. */
const mostGroups = 8;

/** A new picture larger than this deserves a look. */
const newImageBytes = 200_000;

/** Kinds of findings that a site without them should stay without: each is a mistake, whatever the site. */
const mistakes = ['failed-file', 'uncompressed-text', 'lazy-first-screen', 'unreadable'] as const;

/** Budgets that hold today, to start from. */
export function suggestBudgets(
  survey: MeasuredSurvey | undefined,
  sessions: readonly MarkedSession[],
): Budget[] {
  return [...(survey ? ofSurvey(survey) : []), ...sessions.flatMap(ofSession)].map((budget) => ({
    ...budget,
    name: budgetName(budget),
  }));
}

type Unnamed = Omit<Budget, 'name'>;

function ofSurvey(survey: MeasuredSurvey): Unnamed[] {
  const places = [...survey.visits.keys()].filter((at) => survey.visits[at]!.weight > 0);
  if (places.length === 0) return [];
  const today = reasonOf(survey);
  const limit = (
    measure: 'waste' | 'bytes' | 'requests' | 'heaviestImage' | 'sideOverNeed',
    visits: readonly number[],
    more: Partial<Unnamed> = {},
  ): Unnamed[] => {
    const { value } = surveyMeasures[measure].of(survey, visits, more, undefined);
    // Where there is no image today, the first one is no fault.
    if (value === 0 && more.party === undefined) return [];
    return [{ measure, ...more, most: roomFor(value), reason: today }];
  };
  const weightOf = (visits: readonly number[]) =>
    visits.reduce((sum, at) => sum + survey.visits[at]!.weight, 0);
  const groups = [...groupBy(places, (at) => survey.visits[at]!.group)]
    .sort(([, a], [, b]) => weightOf(b) - weightOf(a))
    .slice(0, mostGroups);
  const found = new Set(survey.findings.map(({ id }) => id));
  return [
    ...limit('waste', places),
    ...limit('bytes', places, { party: 'third' }),
    ...limit('sideOverNeed', places),
    ...groups.flatMap(([group, visits]) => [
      ...limit('bytes', visits, { group }),
      ...limit('requests', visits, { group }),
      ...limit('heaviestImage', visits, { group }),
    ]),
    {
      ...{ measure: 'newImage', against: previous, most: newImageBytes },
      reason: 'somebody may have uploaded it as the camera made it',
    },
    ...mistakes
      .filter((id) => !found.has(id))
      .map((id): Unnamed => {
        return {
          measure: 'finding',
          finding: id,
          most: 0,
          reason: `there was none in ${survey.label}`,
        };
      }),
  ];
}

/** Paints and loads of a page, over the line that it was clocked on. */
function ofSession({ page, conditions, runs, label, startedAt }: MarkedSession): Unnamed[] {
  return (['largestContentfulPaint', 'load'] as const).flatMap((measure): Unnamed[] => {
    const values = countedRuns({ runs }).flatMap(({ markers }) => markers[measure] ?? []);
    const summary = summarise(values);
    if (!summary) return [];
    const upper = medianInterval(values)?.[1] ?? summary.max;
    const network = conditions?.network.name;
    const view = conditions?.view.name;
    return [
      {
        ...{ measure, page: page, network, view, most: roomFor(upper) },
        reason: `${reasonOf({ label, startedAt })}, by the upper end of its interval`,
      },
    ];
  });
}

/** Why a limit is what it is: whoever reads it later was not there. */
function reasonOf({ label, startedAt }: Pick<MeasuredSurvey, 'label' | 'startedAt'>): string {
  return `a tenth above ${label.slice(0, 100)} (${startedAt.slice(0, 10)})`;
}

/** A tenth more, as a number with two digits that a person would choose. */
function roomFor(value: number): number {
  const room = value * margin;
  if (room <= 0) return 0;
  const step = 10 ** (Math.floor(Math.log10(room)) - 1);
  // Steps below one are not exact in binary.
  return Number((Math.ceil(room / step) * step).toPrecision(12));
}
