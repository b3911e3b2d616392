import type { RankView } from '../views/rank.js';
import { causes } from '../../core/waste/waste.js';
import { causeTitles } from '../words/causes.js';
import { nameOf, originOf } from '../words/rank.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { escaped } from './markdown.js';

/** A ranking as a Markdown table, for a page that people read. */
export function rankMarkdown(view: RankView): string {
  const { total, by, result } = view;
  const origin = originOf(result.survey);
  const cells = [...view.rows, ...view.thirdParty].map((row) => {
    const { perVisit, files, pages } = row;
    const told = row.ofPage ?? perVisit;
    return [
      nameOf(row, by, origin),
      ...(row.family ? [row.family.where] : []),
      String(files),
      String(pages),
      formatBytes(told.sentBytes),
      formatBytes(told.neededBytes),
      formatBytes(told.wasteBytes),
      formatShare(perVisit.wasteBytes, total.wasteBytes),
      row.thirdParty ? 'third party' : '',
    ];
  });
  const titles = [
    by === 'family' ? 'slot' : by,
    ...(by === 'family' ? ['where'] : []),
    ...['files', 'pages', 'sent', 'needed', 'waste'],
    ...(by === 'page' ? ['share of the site’s waste', ''] : ['share', '']),
  ];
  const line = (texts: readonly string[]) => `| ${texts.map(escaped).join(' | ')} |`;
  const split = causes
    .filter((cause) => total.causes[cause] > 0)
    .map((cause) => `${causeTitles[cause]} ${formatBytes(total.causes[cause])}`);
  return [
    `An average visit is sent ${formatBytes(total.sentBytes)} of images and wastes ${formatBytes(total.wasteBytes)}: ${split.join(', ')}.`,
    '',
    ...(by === 'page' ? ['Bytes of images in an average visit to each page:', ''] : []),
    line(titles),
    line(titles.map(() => '---')),
    ...cells.map(line),
    ...(view.leftOut > 0 ? ['', `${count(view.leftOut, 'more row')} not shown.`] : []),
  ].join('\n');
}
