import type { Change } from '../../core/load/comparison.js';
import type { MarkerName } from '../../core/load/markers.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import { formatBytes, formatTime } from './units.js';

/** What less and more are called, for times and for sizes. */
export type Words = Readonly<Record<'less' | 'more', string>>;
export const timeWords: Words = { less: 'faster', more: 'slower' };
export const sizeWords: Words = { less: 'less', more: 'more' };

function verdictWords({ verdict, runsToSettle }: Change, words: Words): string {
  switch (verdict) {
    case null:
      return '–';
    case 'same':
      return 'same';
    case 'open':
      return runsToSettle === null
        ? 'not clear yet'
        : `not clear yet; ${runsToSettle} runs would tell`;
    default:
      return words[verdict];
  }
}

/** A change with its sign; `±0` if it rounds to zero. */
export function signed(value: number, format: (value: number) => string): string {
  const size = format(Math.abs(value));
  if (size === format(0)) return '±0';
  return `${value > 0 ? '+' : '−'}${size}`;
}

/** A change in words, part by part. */
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

/** Bytes by which a request may differ and still be the same: headers are never quite the same. */
export const sameBytes = 100;
/** Milliseconds by which a request may end earlier or later and still be on time. */
const sameTime = 20;

/** The change of a request, in a few words; nothing if it hardly changed. */
export function shortChange({ before, after, putOff, bytes, end }: RequestChange): string {
  if (before === null) return 'new';
  if (after === null) return putOff ? 'put off' : 'gone';
  const moved = end !== null && Math.abs(end) >= sameTime;
  return [
    ...(Math.abs(bytes) > sameBytes ? [signed(bytes, formatBytes)] : []),
    ...(moved ? [`${formatTime(Math.abs(end))} ${end < 0 ? 'earlier' : 'later'}`] : []),
  ].join(', ');
}

/** A marker's value with its unit; the shift score has none. */
export function formatMarker(name: MarkerName, value: number): string {
  return name === 'layoutShift' ? value.toFixed(3) : formatTime(value);
}
