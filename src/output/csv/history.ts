import type { HistoryView } from '../views/history.js';
import { csvOf } from './csv.js';

/** Every measurement of every series as CSV. */
export function historyCsv({ series }: HistoryView): string {
  return csvOf(
    series.flatMap(({ key, title, unit, source, page, conditions, points }) =>
      points.map(({ at, label, value, low, high }) => ({
        ...{ series: key, title, source, page, conditions, at, label, value, low, high, unit },
      })),
    ),
  );
}
