import { findingTitles } from '../../core/findings/titles.js';
import { causes } from '../../core/waste.js';
import type { Cause } from '../../core/waste.js';
import type { RankTotals, RankedImage, Ranking } from '../../core/ranking.js';
import { formatSize } from '../../core/size.js';
import type { SurveyHead, SurveyedPage } from '../../core/survey.js';
import { pathOf, plainText, shorten } from '../plain-text.js';
import { count, formatBytes, formatShare } from '../units.js';
import { bar, joined, paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** How each cause is called in front of people. */
export const causeTitles: Readonly<Record<Cause, string>> = {
  neverShown: 'never shown',
  duplicate: 'sent twice',
  quality: 'quality and metadata',
  pixels: 'too many pixels',
  format: 'wrong format',
};

export interface RankSheet extends Ranking {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
}

/** A ranking as a page of text: totals, causes, then the files. */
export function drawRanking(sheet: RankSheet, top: number, screen: Screen): string {
  const { totals, images, survey, pages } = sheet;
  const shown = images.slice(0, top);
  const origin = originOf(survey);
  const room = Math.max(18, screen.width - 84);
  const rows = shown.map((image) => rowOf(image, totals, origin, room));
  const lines = [
    heading(survey, pages, screen),
    '',
    totalsLine(totals, images.length, screen),
    '',
    ...causeLines(totals, screen),
    '',
    table(
      screen,
      [
        { title: 'image' },
        { title: 'pages', align: 'right' },
        { title: 'intrinsic', align: 'right' },
        { title: 'rendered' },
        { title: 'need', align: 'right' },
        { title: 'bytes', align: 'right' },
        { title: 'needed', align: 'right' },
        { title: 'waste', align: 'right' },
        { title: 'of all', align: 'right' },
      ],
      rows,
    ),
    '',
    ...footnotes(sheet, shown, screen),
  ];
  return lines.join('\n');
}

function heading(survey: SurveyHead, pages: readonly SurveyedPage[], screen: Screen): string {
  const { bold, yellow } = paletteFor(screen);
  const views = survey.views.map(({ name }) => name).join(', ');
  const title = `${bold(plainText(survey.label))}: ${count(pages.length, 'page')} in ${count(survey.views.length, 'view')} (${plainText(views)})`;
  return survey.finishedAt
    ? title
    : `${title}\n${yellow('this survey was broken off: it ranks what was found until then')}`;
}

function totalsLine(totals: RankTotals, files: number, screen: Screen): string {
  const { bold } = paletteFor(screen);
  const { sentBytes, neededBytes, wasteBytes, unknownBytes } = totals;
  const unknown =
    unknownBytes > 0 ? `, and ${formatBytes(unknownBytes)} that cannot be judged` : '';
  return (
    `${count(files, 'image file')}, each counted once: ${formatBytes(sentBytes)} sent, ` +
    `${formatBytes(neededBytes)} needed, ${bold(`${formatBytes(wasteBytes)} wasted`)} ` +
    `(${formatShare(wasteBytes, sentBytes)})${unknown}`
  );
}

function causeLines({ wasteByCause, wasteBytes }: RankTotals, screen: Screen): string[] {
  const { cyan } = paletteFor(screen);
  return causes
    .filter((cause) => wasteByCause[cause] > 0)
    .sort((a, b) => wasteByCause[b] - wasteByCause[a])
    .map((cause) => {
      const bytes = wasteByCause[cause];
      const length = bar(bytes / wasteBytes, 30).padEnd(30);
      return `  ${causeTitles[cause].padEnd(21)} ${cyan(length)} ${formatBytes(bytes).padStart(8)}  ${formatShare(bytes, wasteBytes).padStart(6)}`;
    });
}

function rowOf(image: RankedImage, totals: RankTotals, origin: string, room: number): string[] {
  const unknown = image.wasteBytes === null;
  return [
    shorten(pathOf(image.url, origin), room),
    String(image.pages),
    image.intrinsic ? formatSize(image.intrinsic) : vectorOr(image),
    renderedCell(image),
    image.need ? formatSize(image.need) : '–',
    formatBytes(image.bytes),
    unknown ? '?' : formatBytes(image.neededBytes ?? 0),
    unknown ? '?' : formatBytes(image.wasteBytes),
    unknown ? '?' : formatShare(image.wasteBytes, totals.wasteBytes),
  ];
}

function vectorOr({ mediaType }: RankedImage): string {
  return mediaType === 'image/svg+xml' ? 'vector' : '?';
}

/** The rendered size that decides the need, with the factor that the need has over it. */
function renderedCell({ placements, need }: RankedImage): string {
  const deciding =
    placements.find((placement) => placement.need && placement.need.width === need?.width) ??
    placements.toSorted((left, right) => right.rendered.width - left.rendered.width)[0];
  if (!deciding) return '–';
  const factor = need ? need.width / deciding.rendered.width : 1;
  return factor > 1.05
    ? `${formatSize(deciding.rendered)} ×${Number(factor.toFixed(1))}`
    : formatSize(deciding.rendered);
}

/** Files that cannot be judged are named up to this many. */
const maxUnjudged = 6;

/** How many files each finding was made of, the most frequent first. */
function findingLine(images: readonly RankedImage[], screen: Screen): string[] {
  const counts = new Map<string, number>();
  for (const { findings } of images)
    for (const id of new Set(findings.map((finding) => finding.id)))
      counts.set(id, (counts.get(id) ?? 0) + 1);
  const told = [...counts]
    .filter(([id]) => id !== 'unreadable' && id !== 'placed-nowhere')
    .sort(([, a], [, b]) => b - a)
    .map(([id, files]) => `${findingTitles[id] ?? id} (${files})`);
  if (told.length === 0) return [];
  return [joined([`Found besides, of so many files: ${told[0]!}`, ...told.slice(1)], screen)];
}

function footnotes(sheet: RankSheet, shown: readonly RankedImage[], screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  const { images, pages } = sheet;
  const left = images.length - shown.length;
  const failed = pages.filter(({ error }) => error !== null).length;
  const unjudged = images.filter(({ wasteBytes }) => wasteBytes === null);
  const several = shown.some(({ urls }) => urls.length > 1);
  return [
    ...unjudged
      .slice(0, maxUnjudged)
      .map(({ url, findings }) =>
        dim(`? ${shorten(url, 60)}: ${plainText(findings[0]?.message ?? 'cannot be read')}`),
      ),
    ...(unjudged.length > maxUnjudged
      ? [dim(`? and ${count(unjudged.length - maxUnjudged, 'more file')} that cannot be judged`)]
      : []),
    ...(several ? [dim('Waste of a file with several addresses counts each of them once.')] : []),
    ...(left > 0
      ? [dim(`${count(left, 'more file')}: --top ${images.length} shows them all.`)]
      : []),
    ...(failed > 0
      ? [dim(`${count(failed, 'page')} had problems: zealous-lynx survey --json lists them.`)]
      : []),
    ...findingLine(images, screen),
    'Next: zealous-lynx refit --out DIR writes the right-sized files.',
  ];
}

/** The origin that addresses are shortened by: that of the survey's first start. */
function originOf({ starts }: SurveyHead): string {
  return starts[0] ? new URL(starts[0]).origin : '';
}
