import type { Change, SessionComparison } from '../../core/load/comparison.js';
import { markerTitles } from '../../core/load/markers.js';
import type { TriedPageView } from '../views/trial.js';
import { changeWords, signed, timeWords } from './change.js';
import { count, formatBytes, formatTime } from './units.js';

const told = ['largestContentfulPaint', 'load'] as const;

/** What the fixes bring, in two sentences. */
export function verdictSentences(comparison: SessionComparison): string[] {
  const paints = told.flatMap((name) => {
    const change = comparison.markers[name];
    if (!change.before || !change.after) return [];
    const from = `${formatTime(change.before.median)} to ${formatTime(change.after.median)}`;
    return [`${markerTitles[name].toLowerCase()} from ${from}${evidence(change)}`];
  });
  const { bytes } = comparison;
  const weight =
    bytes.before && bytes.after
      ? `The page is sent ${formatBytes(bytes.after.median)} instead of ${formatBytes(bytes.before.median)} (${signed(bytes.difference ?? 0, formatBytes)}).`
      : '';
  if (paints.length === 0) return [weight];
  return [`With the fixes: ${paints.join('; ')}.`, weight];
}

function evidence({ difference, interval, verdict }: Change): string {
  if (verdict === 'same') return ', which is the same';
  if (difference === null || interval === null) return ' (too few loads for an interval)';
  const ends = interval.map((end) => signed(end, formatTime)).join(' … ');
  if (verdict === 'open') return ` (not clear yet: ${ends} with 95 % confidence)`;
  return ` (${signed(difference, formatTime)}; ${ends} with 95 % confidence)`;
}

/** A fix as a row: its name, what it changed, and what it brings alone. */
export function fixRow({
  name,
  title,
  unit,
  changed,
  alone,
  predicted,
}: TriedPageView['fixes'][number]) {
  const cell = (change: Change | undefined, format: (value: number) => string): string => {
    if (!change) return '–';
    const { moved, verdict } = changeWords(change, format, timeWords);
    return verdict.startsWith('not clear') ? `${moved}, not clear` : moved;
  };
  return {
    ...{ name, title },
    changed: changed === 0 ? 'nothing' : count(changed, unit),
    largest: cell(alone?.markers.largestContentfulPaint, formatTime),
    load: cell(alone?.markers.load, formatTime),
    bytes: cell(alone?.bytes, formatBytes),
    predicted: {
      largest: predictedWords(predicted?.largestContentfulPaint),
      load: predictedWords(predicted?.load),
    },
  };
}

function predictedWords(change: number | null | undefined): string {
  return change == null ? '–' : signed(change, formatTime);
}
