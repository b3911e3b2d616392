import type { PageRequest, PhaseName } from '../../core/load/request.js';
import type { MarkerName } from '../../core/load/markers.js';

/** Kinds are marked by letter, so that they can be told without colours. */
export const typeLetters: Readonly<Record<PageRequest['type'], string>> = {
  html: 'H',
  style: 'S',
  script: 'J',
  image: 'I',
  font: 'F',
  other: 'O',
};

/** The markers that a waterfall draws as lines, with their letters. */
export const markerLines: readonly (readonly [MarkerName, string, string])[] = [
  ['firstContentfulPaint', 'F', 'first contentful paint'],
  ['largestContentfulPaint', 'L', 'largest contentful paint'],
  ['domContentLoaded', 'D', 'DOMContentLoaded'],
  ['load', 'E', 'load event'],
];

/** Told apart by lightness as well as by hue, which the most common kinds of colour blindness leave. */
export const phaseColours: Readonly<Record<PhaseName, string>> = {
  blocked: '#d5d8dc',
  dns: '#9aa9d6',
  connect: '#7d6bb8',
  tls: '#4b3a86',
  send: '#3c3f45',
  wait: '#efb944',
  receive: '#15708f',
};

/** The label of a request in a row: its path, with the host of a third party. */
export function requestName({ url, thirdParty }: PageRequest): string {
  if (!URL.canParse(url)) return url;
  const { host, pathname, search } = new URL(url);
  return `${thirdParty ? host : ''}${pathname}${search}`;
}

/** What went wrong with a request, in a word: its status, or that it failed. Empty if nothing did. */
export function problemOf({ status, failure }: Pick<PageRequest, 'status' | 'failure'>): string {
  if (status >= 400) return `!${status}`;
  return failure !== null && failure !== 'canceled' ? '!failed' : '';
}
