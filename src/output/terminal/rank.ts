import type { Grouping } from '../../core/rank/groupings.js';
import type { RankRow } from '../../core/rank/rank-view.js';
import type { RankView } from '../views/rank.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { rankedPictures } from '../../core/rank/ranked-picture.js';
import { describeNetwork } from '../../core/visitors/network.js';
import { formatSize } from '../../core/base/size.js';
import { withoutOrigin, plainText, shorten } from '../words/plain-text.js';
import { findingTitle, findingWords } from '../words/findings.js';
import { nameOf, originOf, pixelWords } from '../words/rank.js';
import { count, formatBytes, formatShare, formatTime } from '../words/units.js';
import { causeBars } from './cause-bars.js';
import { joined, paletteFor, table } from './style.js';
import type { Column, Screen } from './style.js';

/** A ranking as a page of text: totals, causes, then the rows. */
export function drawRanking(view: RankView, screen: Screen): string {
  const { rows, thirdParty, total, images, narrowed } = view;
  const lines = [
    ...heading(view, screen),
    '',
    ...totalLines(view, screen),
    '',
    ...(view.by === 'cause' ? [] : [...causeBars(total.causes, total.wasteBytes, screen), '']),
    ...(images.length === 0 && narrowed ? [`Nothing matches ${plainText(narrowed)}.`, ''] : []),
    ...(rows.length > 0 && view.by === 'page'
      ? ['Bytes of images in an average visit to each page:']
      : []),
    ...(rows.length > 0 ? [tableOf(rows, view, screen), ''] : []),
    ...(thirdParty.length > 0 ? [...thirdPartyLines(view, screen), ''] : []),
    ...footnotes(view, screen),
  ];
  return lines.join('\n');
}

/** The totals and the first rows of a ranking, for the end of a survey. */
export function drawWorst(view: RankView, screen: Screen): string {
  return [...totalLines(view, screen), '', tableOf(view.rows, view, screen), ''].join('\n');
}

function heading({ result, images, narrowed }: RankView, screen: Screen): string[] {
  const { bold, yellow } = paletteFor(screen);
  const { survey, pages } = result;
  const pictures = picturesAmong(images, result);
  const files = count(images.length, 'image file');
  const what =
    pictures.length < images.length ? `${count(pictures.length, 'picture')} in ${files}` : files;
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

/** The columns of the time that timed pages would be spared. */
const spared: readonly Field[] = (
  [
    ['largest paint', 'largestContentfulPaint'],
    ['load', 'load'],
  ] as const
).map(([title, name]) => ({
  title,
  align: 'right',
  cell: ({ time }) => (time?.[name] == null ? '–' : formatTime(Math.max(0, time[name]))),
}));

/** A column and its values. */
interface Field extends Column {
  readonly cell: (row: RankRow) => string;
}

function tableOf(rows: readonly RankRow[], view: RankView, screen: Screen): string {
  const fields = fieldsOf(view, screen);
  return table(
    screen,
    fields,
    rows.map((row) => fields.map(({ cell }) => cell(row))),
  );
}

function fieldsOf(view: RankView, screen: Screen): Field[] {
  const { by, result, total, rows, thirdParty, timed } = view;
  const { width } = screen;
  const origin = originOf(result.survey);
  const several = [...rows, ...thirdParty].some(({ files }) => files > 1);
  const right = 'right' as const;
  const counted: Field[] = [
    { title: 'files', align: right, spare: true, cell: ({ files }) => String(files) },
    { title: 'pages', align: right, spare: true, cell: ({ pages }) => String(pages) },
  ];
  const wasted: Field[] = [
    ...(timed ? spared : []),
    {
      title: 'waste/visit',
      align: right,
      cell: ({ perVisit }) => formatBytes(perVisit.wasteBytes),
    },
    {
      title: 'share',
      align: right,
      cell: ({ perVisit }) => formatShare(perVisit.wasteBytes, total.wasteBytes),
    },
  ];
  const named = (title: string, room: number): Field => ({
    title,
    cell: (row) => shorten(nameOf(row, by, origin), Math.max(18, room)),
  });
  const worst = (cell: (image: RankedImage) => string) => (row: RankRow) =>
    row.worst ? cell(row.worst) : '–';
  if (by === 'family')
    return [
      named('slot', width - 98),
      {
        title: 'where',
        spare: true,
        cell: ({ family }) => shorten(withoutOrigin(family!.where, origin), 18),
      },
      ...counted,
      { title: 'now', align: right, spare: true, cell: worst(fromWords) },
      { title: 'needed', align: right, cell: worst(toWords) },
      ...wasted,
    ];
  if (by === 'image')
    return [
      named('image', width - (several ? 93 : 86)),
      ...(several ? counted : [counted[1]!]),
      { title: 'intrinsic', align: right, spare: true, cell: worst(intrinsicWords) },
      { title: 'rendered', spare: true, cell: worst(renderedWords) },
      {
        title: 'need',
        align: right,
        spare: true,
        cell: worst(({ need }) => (need ? formatSize(need) : '–')),
      },
      { title: 'bytes', align: right, cell: worst(({ file }) => formatBytes(file.bytes)) },
      {
        title: 'needed',
        align: right,
        cell: worst(({ waste }) => (waste ? formatBytes(waste.neededBytes) : '?')),
      },
      ...wasted,
    ];
  if (by === 'page') {
    const own = (title: string, name: 'sentBytes' | 'neededBytes' | 'wasteBytes'): Field => ({
      ...{ title, align: right },
      cell: ({ ofPage }) => formatBytes(ofPage?.[name] ?? 0),
    });
    return [
      named('page', width - 72),
      counted[0]!,
      ...(timed ? spared : []),
      own('sent', 'sentBytes'),
      own('needed', 'neededBytes'),
      own('wasted', 'wasteBytes'),
      {
        title: 'share of the site’s waste',
        align: right,
        cell: ({ perVisit }) => formatShare(perVisit.wasteBytes, total.wasteBytes),
      },
    ];
  }
  const sums: Field[] = [
    {
      title: 'sent',
      align: right,
      spare: true,
      cell: ({ perVisit }) => formatBytes(perVisit.sentBytes),
    },
    {
      title: 'needed',
      align: right,
      spare: true,
      cell: ({ perVisit }) => formatBytes(perVisit.neededBytes),
    },
  ];
  return [named(by, width - 60), ...counted, ...sums, ...wasted];
}

function intrinsicWords(image: RankedImage): string {
  return image.file.intrinsic ? formatSize(image.file.intrinsic) : pixelWords(image);
}

function fromWords(image: RankedImage): string {
  return `${intrinsicWords(image)} ${formatBytes(image.file.bytes).padStart(7)}`;
}

function toWords({ waste, need }: RankedImage): string {
  if (!waste) return '?';
  if (waste.neededBytes === 0) return 'not sent';
  const bytes = formatBytes(waste.neededBytes).padStart(6);
  return need ? `${formatSize(need)} ${bytes}` : bytes;
}

/** The rendered size that decides the need, with the factor that the need has over it. */
function renderedWords({ placements, need }: RankedImage): string {
  const deciding =
    placements.find((placement) => placement.need && placement.need.width === need?.width) ??
    placements.toSorted((left, right) => right.rendered.width - left.rendered.width)[0];
  if (!deciding) return '–';
  const factor = need ? need.width / deciding.rendered.width : 1;
  return factor > 1.05
    ? `${formatSize(deciding.rendered)} ×${Number(factor.toFixed(1))}`
    : formatSize(deciding.rendered);
}

/** Images that the site's owner cannot change: listed separately, and briefly. */
function thirdPartyLines(view: RankView, screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  const { thirdParty, thirdPartyTotal, total } = view;
  const share = formatShare(thirdPartyTotal.wasteBytes, total.wasteBytes);
  const told = `Third parties, whose images the site's owner cannot change: ${formatBytes(thirdPartyTotal.wasteBytes)} per visit (${share})`;
  return [dim(told), tableOf(thirdParty, view, screen)];
}

/** The pictures of some of the files, each with those files. */
function picturesAmong(images: readonly RankedImage[], { ledger }: RankView['result']) {
  return rankedPictures(images, ledger.facts.pictures);
}

/** Files that cannot be judged are named up to this many. */
const maxUnjudged = 3;

/** The most placements that are read by default. */
const soonLookedAt = 20_000;

/** The number of pictures with each finding, the most frequent first. */
function findingLine({ result, images, findings }: RankView, screen: Screen): string[] {
  const { ledger } = result;
  if (!findings && ledger.facts.placements.length > soonLookedAt)
    return ['--findings counts what else is wrong with the images.'];
  const counts = new Map<string, number>();
  for (const { images: files } of picturesAmong(images, result))
    for (const id of new Set(files.flatMap((image) => image.findings.map((one) => one.id))))
      counts.set(id, (counts.get(id) ?? 0) + 1);
  const told = [...counts]
    .filter(([id]) => id !== 'unreadable' && id !== 'placed-nowhere')
    .sort(([, a], [, b]) => b - a)
    .map(([id, found]) => `${findingTitle(id)} (${found})`);
  if (told.length === 0) return [];
  return [joined([`Also found (number of pictures): ${told[0]!}`, ...told.slice(1)], screen)];
}

function footnotes(view: RankView, screen: Screen): string[] {
  const { result, images, rows, thirdParty, leftOut, by } = view;
  const { dim, yellow } = paletteFor(screen);
  const { pages, unmatchedRules } = result;
  const failed = pages.filter(({ error }) => error !== null).length;
  const unjudged = images.filter(({ isJudged }) => !isJudged);
  const more = unjudged.length - maxUnjudged;
  return [
    ...(leftOut > 0
      ? [
          dim(
            `${count(leftOut, 'more row')}; --top ${rows.length + thirdParty.length + leftOut} shows all.`,
          ),
        ]
      : []),
    ...unjudged
      .slice(0, maxUnjudged)
      .map(({ url, findings }) =>
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
  return [
    joined(
      [
        `largest paint, load: what an average visit to the ${count(pages, 'timed page')} would be spared`,
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
