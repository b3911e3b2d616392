import { string } from 'yup';
import type { CheckNotes } from './option.js';

const allowed = 'a time like 30m, 6h or 1d';
const units = { s: 1_000, m: 60_000, h: 3_600_000, d: 86_400_000 } as const;
const shape = /^(\d{1,5})([smhd])$/;

/** A length of time: a whole number, and s, m, h or d. */
export function duration() {
  return string()
    .matches(shape, allowed)
    .meta({ allowed: () => allowed } satisfies CheckNotes);
}

/** A length of time in milliseconds. */
export function millisecondsOf(text: string): number {
  const [, number, unit] = shape.exec(text)!;
  return Number(number) * units[unit as keyof typeof units];
}
