import type { Grouping } from '../../core/rank/groupings.js';
import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankView } from '../views/rank.js';
import { describeNetwork } from '../../core/visitors/network.js';
import { plainText, shorten } from '../words/plain-text.js';
import { findingTitle, findingWords } from '../words/findings.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { causeBars } from './cause-bars.js';
import { rankTable } from './rank-table.js';
import { joined, paletteFor } from './style.js';
import type { Screen } from './style.js';

/** A ranking as a page of text: totals, causes, then the rows. */
export function drawRanking(view: RankView, screen: Screen): string {
  const { rows, thirdParty, total, files, narrowed } = view;
  const lines = [
    ...heading(view, screen),
    '',
    ...totalLines(view, screen),
    '',
    ...(view.by === 'cause' ? [] : [...causeBars(total.causes, total.wasteBytes, screen), '']),
    ...(files.count === 0 && narrowed ? [`Nothing matches ${plainText(narrowed)}.`, ''] : []),
    ...(rows.length > 0 && view.by === 'page'
      ? ['Bytes of images in an average visit to each page:']
      : []),
    ...(rows.length > 0 ? [rankTable(rows, view, screen), ''] : []),
    ...(thirdParty.length > 0 ? [...thirdPartyLines(view, screen), ''] : []),
    ...footnotes(view, screen),
  ];
  return lines.join('\n');
}

/** The totals and the first rows of a ranking, for the end of a survey. */
export function drawWorst(view: RankView, screen: Screen): string {
  return [...totalLines(view, screen), '', rankTable(view.rows, view, screen), ''].join('\n');
}

function heading({ result, files: found, narrowed }: RankView, screen: Screen): string[] {
  const { bold, yellow } = paletteFor(screen);
  const { survey, pages } = result;
  const files = count(found.count, 'image file');
  const what =
    found.pictures < found.count ? `${count(found.pictures, 'picture')} in ${files}` : files;
  const views = survey.views.map(({ name }) => name).join(', ');
  const title = `${bold(plainText(survey.label))}: ${what} on ${count(pages.length, 'page')} in ${count(survey.views.length, 'view')} (${plainText(views)})`;
  return [
    narrowed ? `${title}, only ${plainText(narrowed)}` : title,
    ...(survey.finishedAt
      ? []
      : [yellow('this survey was interrupted: only what it had found by then is ranked')]),
  ];
}

function totalLines({ result, total, unweighted }: RankView, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const { visitsAMonth, guessedPages } = result.weights;
  const { sentBytes, neededBytes, wasteBytes, unknownBytes } = total;
  const unknown = unknownBytes > 0 ? `; another ${formatBytes(unknownBytes)} cannot be judged` : '';
  const average = unweighted ? 'An average visit (all visits count the same)' : 'An average visit';
  const lines = [
    `${average} is sent ${formatBytes(sentBytes)} of images, needs ${formatBytes(neededBytes)} and wastes ${bold(formatBytes(wasteBytes))} (${formatShare(wasteBytes, sentBytes)})${unknown}`,
  ];
  if (visitsAMonth !== null && !unweighted)
    lines.push(
      `In ${count(visitsAMonth, 'visit')} a month that is ${bold(formatBytes(wasteBytes * visitsAMonth))} of waste`,
    );
  if (guessedPages > 0 && !unweighted)
    lines.push(
      dim(
        `${count(guessedPages, 'page has', 'pages have')} no visits in the list and ${guessedPages === 1 ? 'counts' : 'count'} as much as the least visited page`,
      ),
    );
  return lines;
}

/** Images that the site's owner cannot change: listed separately, and briefly. */
function thirdPartyLines(view: RankView, screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  const { thirdParty, thirdPartyTotal, total } = view;
  const share = formatShare(thirdPartyTotal.wasteBytes, total.wasteBytes);
  const told = `Third parties, whose images the site's owner cannot change: ${formatBytes(thirdPartyTotal.wasteBytes)} per visit (${share})`;
  return [dim(told), rankTable(thirdParty, view, screen)];
}

/** The number of pictures with each finding, the most frequent first. */
function findingLine({ found }: RankView, screen: Screen): string[] {
  if (!found) return ['--findings counts what else is wrong with the images.'];
  const told = [...found]
    .filter(([id]) => id !== 'unreadable' && id !== 'placed-nowhere')
    .sort(([, a], [, b]) => b - a)
    .map(([id, pictures]) => `${findingTitle(id)} (${pictures})`);
  if (told.length === 0) return [];
  return [joined([`Also found (number of pictures): ${told[0]!}`, ...told.slice(1)], screen)];
}

function footnotes(view: RankView, screen: Screen): string[] {
  const { result, files, rows, thirdParty, leftOut, by } = view;
  const { dim, yellow } = paletteFor(screen);
  const { pages, unmatchedRules } = result;
  const failed = pages.filter(({ error }) => error !== null).length;
  const { first, count: unjudged } = files.unjudged;
  const more = unjudged - first.length;
  return [
    ...(leftOut > 0
      ? [
          dim(
            `${count(leftOut, 'more row')}; --top ${rows.length + thirdParty.length + leftOut} shows all.`,
          ),
        ]
      : []),
    ...first.map(({ url, findings }) =>
      dim(
        `? ${shorten(url, 60)}: ${plainText(findings[0] ? findingWords(findings[0]) : 'cannot be read')}`,
      ),
    ),
    ...(more > 0 ? [dim(`? ${count(more, 'more file')} cannot be judged`)] : []),
    ...unmatchedRules.map(({ reason }) =>
      yellow(`a rule of the policy matches nothing here: ${plainText(reason)}`),
    ),
    ...(failed > 0
      ? [dim(`${count(failed, 'page')} had problems; zealous-lynx survey --json lists them.`)]
      : []),
    ...timeLine(view, screen),
    ...findingLine(view, screen),
    ...nextLines(rows, by),
  ];
}

/** Whose the times are, and where they come from. */
function timeLine({ timed }: RankView, screen: Screen): string[] {
  if (!timed) return [];
  const { pages, network } = timed;
  const which = pages === 1 ? 'one timed page' : count(pages, 'timed page');
  return [
    joined(
      [
        `largest paint, load: what an average visit to the ${which} would be spared`,
        `predicted from loads on ${describeNetwork(network)}`,
      ],
      screen,
    ),
  ];
}

function nextLines(rows: readonly RankRow[], by: Grouping): string[] {
  if (rows.length === 0) return [];
  const worst = rows[0]?.worst;
  const told = worst && (by === 'family' || by === 'image') ? shorten(worst.url, 90) : '';
  return [
    ...(told ? [`Next: zealous-lynx explain '${told}' tells everything about the first;`] : []),
    `${told ? '      ' : 'Next: '}zealous-lynx refit --out DIR writes the right-sized files.`,
  ];
}
