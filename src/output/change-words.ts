import type { Change } from '../core/comparison.js';
import type { MarkerName } from '../core/markers.js';
import { formatTime } from './units.js';

/** What less and more are called: of times, and of sizes. */
export type Words = Readonly<Record<'less' | 'more', string>>;
export const timeWords: Words = { less: 'faster', more: 'slower' };
export const sizeWords: Words = { less: 'less', more: 'more' };

function verdictWords({ verdict, runsToSettle }: Change, words: Words): string {
  switch (verdict) {
    case null:
      return '–';
    case 'same':
      return 'the same';
    case 'open':
      return runsToSettle === null ? 'nothing' : `nothing; ${runsToSettle} runs may`;
    default:
      return words[verdict];
  }
}

/** A change with its sign; what is written as nothing is `±0`. */
export function signed(value: number, format: (value: number) => string): string {
  const size = format(Math.abs(value));
  if (size === format(0)) return '±0';
  return `${value > 0 ? '+' : '−'}${size}`;
}

/** A change as it is told, each part on its own. */
export function changeWords(
  change: Change,
  format: (value: number) => string,
  words: Words,
): Record<'before' | 'after' | 'moved' | 'percent' | 'interval' | 'verdict', string> {
  const { before, after, difference, percent, interval } = change;
  const moved = difference === null ? '–' : signed(difference, format);
  const none = moved === '±0' || moved === '–';
  return {
    before: before ? format(before.median) : '–',
    after: after ? format(after.median) : '–',
    moved,
    percent: none || percent === null ? '–' : signed(percent, (value) => `${value.toFixed(1)} %`),
    interval: interval ? interval.map((end) => signed(end, format)).join(' … ') : '–',
    verdict: verdictWords(change, words),
  };
}

/** A marker's value with its unit; the shift score has none. */
export function formatMarker(name: MarkerName, value: number): string {
  return name === 'layoutShift' ? value.toFixed(3) : formatTime(value);
}
