import type { CompareView } from '../views/compare.js';
import { comparisonLines } from '../words/comparison-lines.js';
import { csvOf } from './csv.js';

/** Comparisons as CSV, one line a number; times in milliseconds, sizes in bytes. */
export function compareCsv({ pages }: CompareView): string {
  return csvOf(
    pages.flatMap((page) =>
      comparisonLines(page).map(({ title, change }) => ({
        page: page.before.page,
        measure: title,
        before: change.before?.median ?? null,
        after: change.after?.median ?? null,
        difference: change.difference,
        percent: change.percent,
        low: change.interval?.[0] ?? null,
        high: change.interval?.[1] ?? null,
        verdict: change.verdict,
        runsToSettle: change.runsToSettle,
      })),
    ),
  );
}
