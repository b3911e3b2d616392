import { printable } from './unprintable.js';

/** An object from outside, of which nothing is known. */
export type UntrustedObject = Readonly<Record<string, unknown>>;

/** The most characters of a text from outside. */
const maxText = 10_000;

/** The value when it is an object; an empty one when it is anything else. */
export function untrustedObject(value: unknown): UntrustedObject {
  return typeof value === 'object' && value !== null ? (value as UntrustedObject) : {};
}

/** The value when it is a list; an empty one when it is anything else. */
export function listOf(value: unknown): readonly unknown[] {
  return Array.isArray(value) ? value : [];
}

/** The value when it is a text, bounded and without control characters; nothing when it is anything else. */
export function textOf(value: unknown): string {
  return typeof value === 'string' ? printable(value.slice(0, maxText), ' ') : '';
}

/** More bytes or milliseconds than anything that was ever measured here. */
const maxAmount = 1e12;

/** The value when it is a number of at least 0 that can be an amount, also when it is written as a text; else `null`. */
export function amountOf(value: unknown): number | null {
  const number = typeof value === 'string' && value.trim() !== '' ? Number(value) : value;
  return typeof number === 'number' && number >= 0 && number <= maxAmount ? number : null;
}

/** The same where it can only be a whole number: bytes, a status, a line. */
export function wholeOf(value: unknown): number | null {
  const amount = amountOf(value);
  return amount === null ? null : Math.round(amount);
}
