import type { Resource } from '../../../survey/resource.js';

/**
 * Seconds for which a browser may use what it has without asking (RFC 9111, section 4.2.1).
 *
 * @returns `null` where nothing is said; `undefined` where it is said by a date alone, and nobody noted when
 */
export function lifetimeOf({ headers }: Pick<Resource, 'headers'>): number | null | undefined {
  const control = (headers['cache-control'] ?? '').toLowerCase();
  if (/\bno-(?:store|cache)\b/.test(control)) return 0;
  const age = /\bmax-age\s*=\s*"?(\d{1,10})/.exec(control)?.[1];
  if (age !== undefined) return Number(age);
  if (headers.expires === undefined) return null;
  // Anything that is no date means that it has expired (section 5.3).
  const isDate = /[a-z]/i.test(headers.expires) && !Number.isNaN(Date.parse(headers.expires));
  return isDate ? undefined : 0;
}

export const day = 86_400;

/** `3 days`, in the largest unit of which it has one. */
export function lifetimeWords(seconds: number, count: (number: number, one: string) => string) {
  if (seconds < 3_600) return count(Math.round(seconds / 60), 'minute');
  return seconds < day
    ? count(Math.round(seconds / 3_600), 'hour')
    : count(Math.round(seconds / day), 'day');
}
