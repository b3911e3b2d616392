import type { FirstRankingView } from '../views/first-ranking.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { rankTable } from './rank-table.js';
import { paletteFor } from './style.js';
import type { Screen } from './style.js';

/** What a survey wastes by the first estimate, while it goes on. */
export function drawFirstRanking({ ranking, estimated }: FirstRankingView, screen: Screen): string {
  const { bold, dim } = paletteFor(screen);
  const { sentBytes, neededBytes, wasteBytes, unknownBytes } = ranking.total;
  const missing =
    unknownBytes > 0 ? `; another ${formatBytes(unknownBytes)} is not judged yet` : '';
  return [
    `${bold('First estimate')}, from one encode of each of ${count(estimated, 'image')}; the exact bytes follow`,
    `An average visit is sent ${formatBytes(sentBytes)} of images, needs about ${formatBytes(neededBytes)} and wastes about ${bold(formatBytes(wasteBytes))} (${formatShare(wasteBytes, sentBytes)})${missing}`,
    '',
    rankTable(ranking.rows, ranking, screen),
    ...(ranking.leftOut > 0
      ? [dim(`${count(ranking.leftOut, 'more row')}; zealous-lynx rank lists all at the end`)]
      : []),
    '',
  ].join('\n');
}
