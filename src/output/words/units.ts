export { formatBytes } from '../../core/base/byte-words.js';

/** Milliseconds as people read them: `340 ms`, `1.24 s`. */
export function formatTime(milliseconds: number): string {
  return Math.abs(milliseconds) < 1000
    ? `${Math.round(milliseconds)} ms`
    : `${(milliseconds / 1000).toFixed(2)} s`;
}

/** A share of a whole in per cent: `3.4 %`. */
export function formatShare(part: number, whole: number): string {
  return whole === 0 ? '–' : `${((part / whole) * 100).toFixed(1)} %`;
}

/** `1 page`, `2 pages`. */
export function count(number: number, one: string, many = `${one}s`): string {
  return `${number.toLocaleString('en')} ${number === 1 ? one : many}`;
}
