import type { Change, SessionComparison } from '../../core/load/comparison.js';
import { markerTitles } from '../../core/load/markers.js';
import { decidingMarkers } from '../../core/trial/deciding-markers.js';
import type { TriedPageView } from '../views/trial.js';
import { changeWords, signed, timeWords } from './change.js';
import { count, formatBytes, formatTime } from './units.js';

/** What the fixes bring, in two sentences. */
export function verdictSentences({ markers, bytes }: SessionComparison): string[] {
  const known = decidingMarkers.flatMap((name) => {
    const { before, after } = markers[name];
    return before && after ? [{ name, change: markers[name], before, after }] : [];
  });
  const times = known.map(
    ({ name, change, before, after }, at) =>
      `${markerTitles[name].toLowerCase()} ${at === 0 ? 'goes ' : ''}from ${formatTime(before.median)} to ${formatTime(after.median)} (${evidence(change, at === 0)})`,
  );
  const weight =
    bytes.before && bytes.after
      ? [
          `The page is sent ${formatBytes(bytes.after.median)} instead of ${formatBytes(bytes.before.median)}.`,
        ]
      : [];
  return [...(times.length > 0 ? [`With the fixes, ${times.join(' and ')}.`] : []), ...weight];
}

/** How sure a change is; the words are needed once. */
function evidence({ interval, verdict }: Change, isFirst: boolean): string {
  if (verdict === 'same') return 'the same in every load';
  if (interval === null) return 'too few loads for an interval';
  const ends = interval.map((end) => signed(end, formatTime)).join(' … ');
  const words = isFirst ? `${ends} with 95 % confidence` : ends;
  return verdict === 'open' ? `not clear yet: ${words}` : words;
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
