import type { SparedTime } from '../../core/rank/spared-time.js';
import { describeNetwork } from '../../core/visitors/network.js';
import { formatTime } from './units.js';

/**
 * What visitors would be spared, predicted from loads that were timed, in a sentence.
 *
 * @param visit whose time it is
 */
export function sparedWords(
  { largestContentfulPaint: paint, load, network }: SparedTime,
  visit: string,
): string {
  const parts = [
    ...(paint === null ? [] : [`${formatTime(Math.max(0, paint))} until largest contentful paint`]),
    ...(load === null ? [] : [`${formatTime(Math.max(0, load))} until load`]),
  ];
  return `${visit} would be spared ${parts.join(' and ')}, predicted from loads on ${describeNetwork(network)}`;
}
