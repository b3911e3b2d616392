import { printable } from '../../core/base/unprintable.js';

/** Text of foreign origin as it may be printed: on one line, harmless, at most `limit` characters. */
export function plainText(text: string, limit = 400): string {
  const harmless = printable(text);
  return harmless.length <= limit ? harmless : `${harmless.slice(0, limit - 1)}…`;
}

/** Shortens in the middle, so that both the folder and the name of a path stay readable. */
export function shorten(text: string, limit: number): string {
  const harmless = plainText(text);
  if (harmless.length <= limit) return harmless;
  const tail = Math.ceil((limit - 1) * 0.65);
  return `${harmless.slice(0, limit - 1 - tail)}…${harmless.slice(-tail)}`;
}

/** The characters of a name that are shown where there is room. */
export const mostName = 72;

/** An address without the scheme and host that all others share. */
export function withoutOrigin(address: string, origin: string): string {
  return address.startsWith(`${origin}/`) ? address.slice(origin.length) : address;
}
