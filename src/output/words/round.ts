import type { RoundView } from '../views/round.js';
import { plainText } from './plain-text.js';
import { count, formatBytes } from './units.js';

/** A round in one line. */
export function roundLine(view: RoundView): string {
  const { startedAt, finishedAt, outcome, figures, troubles, told, failedChannels, next } = view;
  const seconds = Math.round((Date.parse(finishedAt) - Date.parse(startedAt)) / 1000);
  const clockTime = (at: string) => at.slice(0, 16).replace('T', ' ');
  return [
    `${clockTime(startedAt)} UTC, ${seconds} s: ${outcomeWords(outcome)}`,
    ...(figures
      ? [
          count(figures.pages, 'page'),
          `${formatBytes(figures.sums.bytes)} and ${formatBytes(figures.sums.wasteBytes)} of waste in an average visit`,
        ]
      : []),
    troubles.length === 0 ? 'nothing wrong' : count(troubles.length, 'alarm'),
    ...(told > 0 ? [`${count(told, 'message')} sent`] : []),
    ...failedChannels.map(
      ({ channel, reason }) => `${plainText(channel, 80)} not reached (${plainText(reason, 80)})`,
    ),
    ...(next === null ? [] : [`next on ${clockTime(next)} UTC`]),
  ].join(' · ');
}

function outcomeWords(outcome: RoundView['outcome']): string {
  switch (outcome) {
    case 'done':
      return 'surveyed';
    case 'down':
      return 'the site cannot be reached';
    case 'failed':
      return 'it failed';
    case 'stopped':
      return 'stopped';
  }
}
