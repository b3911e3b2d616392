import type { Series } from './series.js';

/** A marker that moved otherwise for visitors than under `clock`. */
export interface FieldDisagreement {
  readonly page: string;
  readonly title: string;
  readonly unit: Series['unit'];
  readonly field: { readonly before: number; readonly after: number };
  readonly clock: { readonly before: number; readonly after: number; readonly conditions: string };
}

/** Two that move apart by less than this factor move together. */
const apart = 1.1;

/**
 * Where visitors and `clock` disagree about what happened: each from its first measurement in the time that both have to
 * its last, and the two changes more than a tenth apart.
 */
export function disagreements(
  field: readonly Series[],
  clock: readonly Series[],
): FieldDisagreement[] {
  return field.flatMap((visitors) => {
    const marker = visitors.key.replace(/^field\./, '');
    return clock
      .filter(({ key, page }) => key === `clock.${marker}` && page === visitors.page)
      .flatMap((lab): FieldDisagreement[] => {
        const [one, other] = [endsWithin(visitors, lab), endsWithin(lab, visitors)];
        if (!one || !other) return [];
        const ratio = one.after / one.before / (other.after / other.before);
        if (!(ratio > apart || ratio < 1 / apart)) return [];
        return [
          {
            ...{ page: visitors.page ?? '', title: visitors.title, unit: visitors.unit },
            field: one,
            clock: { ...other, conditions: lab.conditions ?? '' },
          },
        ];
      });
  });
}

/** The first and the last value of a series in the time that another one has as well; a day counts whole. */
function endsWithin(series: Series, other: Series): { before: number; after: number } | undefined {
  const dayOf = (at: string) => at.slice(0, 10);
  const [from, to] = [other.points[0], other.points.at(-1)];
  if (!from || !to) return undefined;
  const within = series.points.filter(
    ({ at }) => dayOf(at) >= dayOf(from.at) && dayOf(at) <= dayOf(to.at),
  );
  const [first, last] = [within[0], within.at(-1)];
  if (!first || !last || first === last || first.value <= 0 || last.value <= 0) return undefined;
  return { before: first.value, after: last.value };
}
