import { changesAgree } from '../../core/load/agreement.js';
import type { CompareView } from '../views/compare.js';
import { comparisonLines } from '../words/comparison-lines.js';
import type { ComparisonLine } from '../words/comparison-lines.js';
import { csvOf } from './csv.js';

/**
 * Comparisons as CSV, one line a number; times in milliseconds, sizes in bytes. Where a trial was named, what it had measured
 * stands in the last columns.
 */
export function compareCsv({ pages }: CompareView): string {
  const isTried = pages.some(({ tried }) => tried !== null);
  return csvOf(
    pages.flatMap((page) =>
      comparisonLines(page).map((line) => ({
        page: page.before.page,
        measure: line.title,
        before: line.change.before?.median ?? null,
        after: line.change.after?.median ?? null,
        difference: line.change.difference,
        percent: line.change.percent,
        low: line.change.interval?.[0] ?? null,
        high: line.change.interval?.[1] ?? null,
        verdict: line.change.verdict,
        runsToSettle: line.change.runsToSettle,
        ...(isTried && triedCells(line)),
      })),
    ),
  );
}

function triedCells({ tried, change }: ComparisonLine) {
  const agrees = tried && changesAgree(tried, change);
  return {
    tried: tried?.difference ?? null,
    triedLow: tried?.interval?.[0] ?? null,
    triedHigh: tried?.interval?.[1] ?? null,
    agrees: agrees === null ? null : agrees ? 'yes' : 'no',
  };
}
