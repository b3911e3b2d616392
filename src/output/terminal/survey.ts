import { requestTypes, totalBytes } from '../../core/load/request.js';
import { groupBy } from '../../core/base/group-by.js';
import { hasFailed } from '../../core/survey/failed-survey.js';
import type { MissingImage } from '../../core/survey/missing-images.js';
import type { SurveyedPage } from '../../core/survey/survey.js';
import type { SurveyView } from '../views/survey.js';
import { withoutOrigin, plainText, shorten } from '../words/plain-text.js';
import { skippedLines } from '../words/skipped.js';
import { count, formatBytes } from '../words/units.js';
import { originOf } from '../words/rank.js';
import { drawWorst } from './rank.js';
import { joined, paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** A survey as a page of text: one row a page, what was skipped, and what to do next. */
export function drawSurvey(view: SurveyView, screen: Screen): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { survey, pages, skipped, missing, interrupted, top } = view;
  const heaviest = [...pages].sort((a, b) => totalBytes(b.bytesByType) - totalBytes(a.bytesByType));
  const shown = heaviest.slice(0, top);
  const origin = originOf(survey);
  const problems = pages.filter(({ error }) => error !== null);
  const left = pages.length - shown.length;
  if (pages.length === 0 && interrupted)
    return `${bold(plainText(survey.label))}: stopped before its first page was surveyed; zealous-lynx survey --resume continues.`;
  const notes = [
    ...takenLines(view.takenOver, origin),
    ...groupLines(pages, screen),
    ...missingLines(missing, origin).map(yellow),
    ...problems
      .slice(0, maxProblems)
      .map(({ url, error }) =>
        yellow(`! ${shorten(withoutOrigin(url, origin), 60)}: ${plainText(error!)}`),
      ),
    ...(problems.length > maxProblems
      ? [
          yellow(
            `! ${count(problems.length - maxProblems, 'more page')} with problems; --json lists them`,
          ),
        ]
      : []),
    ...skippedLines(skipped).map(dim),
    ...(interrupted
      ? [yellow('Stopped. What was surveyed is kept; zealous-lynx survey --resume continues.')]
      : []),
  ];
  const pageTable = () =>
    table(
      screen,
      [
        { title: 'page' },
        { title: 'status', align: 'right' },
        { title: 'weight', align: 'right' },
        ...requestTypes.map((type) => ({
          title: type,
          align: 'right' as const,
          spare: type !== 'image',
        })),
      ],
      shown.map((page) => rowOf(page, origin, Math.max(20, screen.width - 76))),
    );
  return [
    `${bold(plainText(survey.label))}: ${pages.length === 0 ? 'no page could be surveyed' : `${count(pages.length, 'page')} surveyed in ${count(survey.views.length, 'view')}, heaviest first`}`,
    '',
    ...(pages.length === 0 ? [] : [pageTable()]),
    ...(left > 0 ? [dim(`${count(left, 'more page')}; --top ${pages.length} shows all.`)] : []),
    '',
    ...notes,
    ...(notes.length > 0 ? [''] : []),
    ...rankingLines(view, screen),
  ].join('\n');
}

/** The most changed pages that are listed. */
const maxChanged = 10;

/** What was taken over from an earlier survey, and which pages were visited again. */
function takenLines(taken: SurveyView['takenOver'], origin: string): string[] {
  if (!taken) return [];
  const { from, pages, asked, changed } = taken;
  const more = changed.length - maxChanged;
  return [
    `Taken over from ${plainText(from, 60)}: ${count(pages, 'page')}, after asking for ${count(asked, 'file')}. Visited again: ${changed.length}.`,
    ...changed
      .slice(0, maxChanged)
      .map(
        ({ url, reason }) =>
          `  ${shorten(withoutOrigin(url, origin), 60)}: ${shorten(withoutOrigin(reason, origin), 100)}`,
      ),
    ...(more > 0 ? [`  ${count(more, 'more page')}; --json lists them`] : []),
  ];
}

/** The first answer: what an average visit wastes, and on what most of it. */
function rankingLines({ ranking, pages }: SurveyView, screen: Screen): string[] {
  if (hasFailed(pages)) return [];
  if (!ranking || ranking.rows.length === 0)
    return ['Next: zealous-lynx rank shows which images waste the most.'];
  return [
    drawWorst(ranking, screen),
    'Next: zealous-lynx rank tells the causes and lists the rest.',
  ];
}

function rowOf({ url, status, bytesByType, error }: SurveyedPage, origin: string, room: number) {
  const cell = (bytes: number) => (bytes > 0 ? formatBytes(bytes) : '–');
  return [
    `${error === null ? '' : '! '}${shorten(withoutOrigin(url, origin), room)}`,
    status === null ? '–' : String(status),
    cell(totalBytes(bytesByType)),
    ...requestTypes.map((type) => cell(bytesByType[type])),
  ];
}

/** Page groups of more than one page, the largest first. */
function groupLines(pages: readonly SurveyedPage[], screen: Screen): string[] {
  const groups = [...groupBy(pages, ({ group }) => group ?? '')]
    .filter(([name, members]) => name !== '' && members.length > 1)
    .sort(([, a], [, b]) => b.length - a.length);
  if (groups.length === 0) return [];
  const told = groups
    .slice(0, maxGroups)
    .map(([name, members]) => `${shorten(name, 40)} (${members.length})`);
  const left = groups.length - told.length;
  const more = left > 0 ? [`and ${left} more`] : [];
  return [joined([`page groups: ${told[0]!}`, ...told.slice(1), ...more], screen)];
}

function missingLines(missing: readonly MissingImage[], origin: string): string[] {
  const told = missing.slice(0, maxMissing).map(({ url, problem, page, pages }) => {
    const where = pages === 1 ? shorten(withoutOrigin(page, origin), 40) : count(pages, 'page');
    return `! no image at ${shorten(withoutOrigin(url, origin), 60)} (${where}): ${plainText(problem, 120)}`;
  });
  const left = missing.length - told.length;
  return left > 0
    ? [...told, `! ${count(left, 'more image')} did not arrive; --json lists them`]
    : told;
}

/** More lines of a kind than these would push the table off the screen. */
const maxProblems = 15;
const maxMissing = 8;
const maxGroups = 8;
