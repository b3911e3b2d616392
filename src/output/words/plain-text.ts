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
  const [begin, end] = [harmless.slice(0, limit - 1 - tail), harmless.slice(-tail)];
  return end.includes(step) ? `${upToStep(begin)}…${fromStep(end)}` : `${begin}…${end}`;
}

/** What stands between the steps of a selector, which are left out whole. */
const step = ' > ';

function upToStep(begin: string): string {
  const at = begin.lastIndexOf(step);
  return at < 0 ? '' : begin.slice(0, at + step.length);
}

function fromStep(end: string): string {
  return end.slice(end.indexOf(step));
}

/** The characters of a name that are shown where there is room. */
export const mostName = 72;

/** An address without the scheme and host that all others share. */
export function withoutOrigin(address: string, origin: string): string {
  return address.startsWith(`${origin}/`) ? address.slice(origin.length) : address;
}
