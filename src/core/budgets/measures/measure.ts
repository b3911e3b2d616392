import type { BudgetFilters } from '../filters.js';
import type { MeasuredSurvey } from '../measured-survey.js';

/** What a value is told in. */
export type MeasureUnit = 'bytes' | 'requests' | 'times' | 'findings' | 'ms' | 'score';

/** What has the most part in a value: where it can be seen, and what can be asked of it. */
export interface Culprit {
  /** Address of a file, or of a page. */
  readonly url: string;
  readonly page: string | null;
  readonly view: string | null;
  /** The element that shows it. */
  readonly placement: { readonly kind: string; readonly selector: string } | null;
  /** Its part, in the unit of the measure. */
  readonly value: number;
}

export interface MeasuredValue {
  readonly value: number;
  readonly culprit: Culprit | null;
}

/** A number that a survey has, and that a budget can hold. */
export interface SurveyMeasure {
  /** In a few words. */
  readonly title: string;
  readonly unit: MeasureUnit;
  /** What a budget of it can narrow down. */
  readonly filters: readonly (keyof BudgetFilters)[];
  /** Whether it sets a survey against an earlier one in any case. */
  readonly isRelative?: boolean;
  /**
   * @param visits places of the visits that are looked at; not empty
   * @param earlier the survey that it is set against
   */
  of(
    survey: MeasuredSurvey,
    visits: readonly number[],
    filters: BudgetFilters,
    earlier: MeasuredSurvey | undefined,
  ): MeasuredValue;
}

/** A part of what a visit has; its element is looked for only where it has the largest part. */
export interface Part {
  readonly url: string;
  readonly value: number;
  readonly placement: () => Culprit['placement'];
}

/** The element of what no element shows. */
export const nowhere = () => null;

/** A part, and the visit that it is of. */
type Placed = Part & Pick<Culprit, 'page' | 'view'>;

/** What an average visit has, to a tenth, and the file that has the most part in it. */
export function averageOf(
  { visits }: MeasuredSurvey,
  places: readonly number[],
  partsOf: (visit: number) => readonly Part[],
): MeasuredValue {
  const weight = places.reduce((sum, place) => sum + visits[place]!.weight, 0);
  // Views without any share would leave nothing to look at.
  const share = (place: number) =>
    weight > 0 ? visits[place]!.weight / weight : 1 / places.length;
  const files = new Map<string, { value: number; worst: Placed }>();
  let value = 0;
  for (const place of places) {
    const { page, view } = visits[place]!;
    for (const part of partsOf(place)) {
      const bytes = part.value * share(place);
      value += bytes;
      const known = files.get(part.url);
      if (!known) files.set(part.url, { value: bytes, worst: { ...part, page, view } });
      else {
        known.value += bytes;
        // Where it has the largest part it is seen best.
        if (part.value > known.worst.value) known.worst = { ...part, page, view };
      }
    }
  }
  let most = { value: 0, worst: null as Placed | null };
  for (const file of files.values()) if (file.value > most.value) most = file;
  const culprit = most.worst && culpritOf({ ...most.worst, value: most.value });
  return { value: Math.round(value * 10) / 10, culprit };
}

/** The largest part of all. */
export function largestOf(
  { visits }: MeasuredSurvey,
  places: readonly number[],
  partsOf: (visit: number) => readonly Part[],
): MeasuredValue {
  let largest: Placed | null = null;
  for (const place of places) {
    const { page, view } = visits[place]!;
    for (const part of partsOf(place))
      if (part.value > (largest?.value ?? 0)) largest = { ...part, page, view };
  }
  return { value: largest?.value ?? 0, culprit: largest && culpritOf(largest) };
}

function culpritOf({ url, page, view, placement, value }: Placed): Culprit {
  return { url, page, view, placement: placement(), value: Math.round(value * 100) / 100 };
}
