import { sendingsOf } from '../../core/rank/sendings.js';
import type { Sending } from '../../core/rank/sendings.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { RankResult } from '../../core/rank/rank-view.js';
import { formatSize } from '../../core/base/size.js';
import { plainText } from '../words/plain-text.js';
import { count, formatBytes } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** The most rows: pages of many templates may each need it in another size. */
const maxRows = 8;

/** What is sent, needed and wasted each time that a file is sent: in one line, or for each need by itself. */
export function sendingLines(image: RankedImage, { ledger }: RankResult, screen: Screen): string[] {
  const { bold } = paletteFor(screen);
  const sendings = sendingsOf(image.deliveries, (visit) => ledger.facts.visits[visit]!.view);
  const [first, ...others] = sendings;
  if (!first) return [];
  if (others.length === 0) {
    const { sentBytes, neededBytes, wasteBytes } = first.waste;
    return [
      `Each time it is sent: ${formatBytes(sentBytes)} sent, ${formatBytes(neededBytes)} needed, ${bold(`${formatBytes(wasteBytes)} wasted`)}`,
    ];
  }
  const left = sendings.length - maxRows;
  return [
    'Each time it is sent',
    table(
      screen,
      [
        { title: 'view' },
        { title: 'need', align: 'right', spare: true },
        { title: 'sent', align: 'right' },
        { title: 'needed', align: 'right' },
        { title: 'wasted', align: 'right' },
      ],
      sendings.slice(0, maxRows).map((one) => rowOf(one, sendings)),
    ),
    ...(left > 0 ? [`${count(left, 'smaller need')} more`] : []),
  ];
}

function rowOf({ views, need, waste }: Sending, all: readonly Sending[]): string[] {
  // A view whose pages all need the same says enough by its name.
  const words = views.map(({ name, pages }) =>
    all.filter((one) => one.views.some((view) => view.name === name)).length > 1
      ? `${plainText(name)} (${count(pages, 'page')})`
      : plainText(name),
  );
  return [
    words.join(', '),
    need ? formatSize(need) : '–',
    ...[waste.sentBytes, waste.neededBytes, waste.wasteBytes].map(formatBytes),
  ];
}
