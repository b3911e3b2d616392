import { findingKinds } from '../findings/index.js';
import { markerNames } from '../load/markers.js';
import type { MarkerName } from '../load/markers.js';
import type { BudgetFilters } from './filters.js';
import { surveyMeasures } from './measures/index.js';
import type { SurveyMeasureName } from './measures/index.js';

/** What a budget can hold: a number of a survey, or a marker of loads. */
export type MeasureName = SurveyMeasureName | MarkerName;

export const measureNames: readonly MeasureName[] = [
  ...(Object.keys(surveyMeasures) as SurveyMeasureName[]),
  ...markerNames,
];

/** A limit that a person has set. */
export interface Budget extends BudgetFilters {
  /** Names it in results; made of the rest where a person gave none. */
  readonly name: string;
  readonly measure: MeasureName;
  /** Patterns of addresses of pages, of names of page groups, of names of views: all that match are judged, each by itself. */
  readonly page?: string | undefined;
  readonly group?: string | undefined;
  readonly view?: string | undefined;
  /** The most that is allowed, in the unit of the measure. */
  readonly most?: number | undefined;
  /** Label of an earlier survey or session, or `previous`: the number then is the measure to go by. */
  readonly against?: string | undefined;
  /** By what part a number may be larger than it was then: 0.05 is 5 %. */
  readonly margin?: number | undefined;
  /** Of markers: what must not be over the limit, the median or the upper end of its interval. */
  readonly hold?: 'median' | 'upper' | undefined;
  /** Of markers: only loads over the network of this name; and whose loads, those of `clock` or of visitors. */
  readonly network?: string | undefined;
  readonly from?: 'clock' | 'field' | undefined;
  readonly reason: string;
}

/** The word for the survey or session before the one that is judged. */
export const previous = 'previous';

export function isMarker(measure: MeasureName): measure is MarkerName {
  return (markerNames as readonly string[]).includes(measure);
}

const loadFindings: ReadonlySet<string> = new Set(findingKinds.load.map(({ id }) => id));

/** Kinds of findings that a budget can forbid: those that surveys list, and those of loads. */
export const budgetedFindings: ReadonlySet<string> = new Set([
  ...[...findingKinds.image, ...findingKinds.site].map(({ id }): string => id),
  ...loadFindings,
]);

/** Whether a budget forbids a kind of finding that only loads can show. */
export function isOfLoads({ measure, finding = '' }: Pick<Budget, 'measure' | 'finding'>): boolean {
  return measure === 'finding' && loadFindings.has(finding);
}

/** What a budget is about, without its limit: two of the same would contradict each other. */
export function aboutOf(budget: Omit<Budget, 'name' | 'reason' | 'most' | 'margin'>): string {
  const { measure, page, group, view, type, image, party, host, finding } = budget;
  const { against, hold, network, from } = budget;
  return JSON.stringify([
    ...[measure, page, group, view, type, image, party, host, finding],
    // A limit and a comparison may both hold for one number.
    ...[against, hold, network, from],
  ]);
}
