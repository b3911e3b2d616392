import type { Move, Movement } from '../../core/history/movement.js';
import type { Series } from '../../core/history/series.js';
import type { HistoryView } from '../views/history.js';
import { sameBytes, signed } from '../words/change.js';
import {
  disagreementWords,
  fileReason,
  measureTitles,
  moveChange,
  moveValue,
  movedMost,
  nameOf,
  reasonWords,
  seriesTitle,
  seriesValue,
  sparkline,
  stepWords,
} from '../words/history.js';
import { plainText, shorten } from '../words/plain-text.js';
import { count, formatBytes } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Palette, Screen } from './style.js';

/** Columns of a sparkline. */
const sparkWidth = 24;

/** The most numbers of loads that are listed. */
const mostSeries = 36;

/** A site over time: its surveys, its numbers, their steps, and what moved between two surveys. */
export function drawHistory(view: HistoryView, screen: Screen): string {
  const palette = paletteFor(screen);
  const { bold, dim, yellow } = palette;
  const { hosts, surveys, series, thinned, leftOut, steps, moved, disagreements } = view;
  const [first, last] = [surveys[0], surveys.at(-1)];
  const days = [...new Set([first, last].flatMap((one) => (one ? dayOf(one) : [])))];
  const span = days.length > 0 ? `, ${days.join(' to ')}` : '';
  const notes = [
    ...(thinned.length > 0
      ? [`Of ${count(thinned.length, 'survey')} only the figures are left: ${list(thinned)}.`]
      : []),
    ...(leftOut.length > 0
      ? [`Left out, because interrupted or without a page: ${list(leftOut)}.`]
      : []),
  ];
  const of = (source: Series['source']) => series.filter((one) => one.source === source);
  return [
    `${bold(hosts.map((host) => plainText(host)).join(', '))}: ${count(surveys.length, 'survey')}${span}`,
    ...notes.map(dim),
    '',
    surveyTable(view, screen),
    ...(surveys.length > mostSurveys
      ? [dim(`${surveys.length - mostSurveys} older ones are not listed; --csv has all.`)]
      : []),
    '',
    seriesTable('of an average visit', of('survey'), screen),
    ...(of('clock').length > 0
      ? ['', seriesTable('loads (medians)', of('clock').slice(0, mostSeries), screen)]
      : []),
    ...(of('clock').length > mostSeries
      ? [dim(`${of('clock').length - mostSeries} more numbers of loads; --csv has all.`)]
      : []),
    ...(of('field').length > 0
      ? ['', seriesTable('visitors (75th percentiles)', of('field'), screen)]
      : []),
    ...(steps.length > 0 ? ['', bold('Steps that are more than noise:')] : []),
    ...steps.flatMap(({ series: one, step, moved: behind }) => [
      `  ${stepWords(one, step)}`,
      ...(behind && movedMost(behind) ? [dim(`    then: ${movedMost(behind)}`)] : []),
    ]),
    ...(disagreements.length > 0
      ? [
          '',
          yellow('Visitors and clock disagree:'),
          ...disagreements.map((one) => `  ${disagreementWords(one)}`),
        ]
      : []),
    ...(moved ? ['', ...movedLines(moved, view.top, screen, palette)] : []),
  ].join('\n');
}

function dayOf({ survey }: HistoryView['surveys'][number]): string {
  return survey.startedAt.slice(0, 10);
}

function list(labels: readonly string[]): string {
  return labels.map((label) => plainText(label, 40)).join(', ');
}

/** The most surveys that are listed: the newest. */
const mostSurveys = 12;

function surveyTable({ surveys }: HistoryView, screen: Screen): string {
  const right = 'right' as const;
  return table(
    screen,
    [
      { title: 'survey' },
      { title: 'started (UTC)' },
      { title: 'pages', align: right, spare: true },
      { title: 'bytes/visit', align: right },
      { title: 'waste/visit', align: right },
      { title: 'requests/visit', align: right, spare: true },
      { title: 'findings', align: right, spare: true },
    ],
    surveys
      .slice(-mostSurveys)
      .map(({ survey, pages, failedPages, sums, findings }) => [
        plainText(survey.label, 40),
        survey.startedAt.slice(0, 16).replace('T', ' '),
        failedPages > 0 ? `${pages} (${failedPages} failed)` : String(pages),
        formatBytes(sums.bytes),
        formatBytes(sums.wasteBytes),
        (sums.requests / 1_000).toFixed(1),
        String(Object.values(findings).reduce((sum, one) => sum + one, 0)),
      ]),
  );
}

function seriesTable(title: string, series: readonly Series[], screen: Screen): string {
  const right = 'right' as const;
  return table(
    screen,
    [
      { title, wraps: true, least: 24 },
      { title: 'over time' },
      { title: 'first', align: right, spare: true },
      { title: 'last', align: right },
      { title: 'change', align: right },
      { title: 'runs of the last', spare: true },
    ],
    series.map((one) => {
      const [first, last] = [one.points[0]!, one.points.at(-1)!];
      const range =
        last.low === null || last.high === null
          ? ''
          : `${seriesValue(last.low, one.unit)} … ${seriesValue(last.high, one.unit)}`;
      return [
        shorten(seriesTitle(one), 60),
        sparkline(
          one.points.map(({ value }) => value),
          sparkWidth,
        ),
        seriesValue(first.value, one.unit),
        seriesValue(last.value, one.unit),
        signed(last.value - first.value, (value) => seriesValue(value, one.unit)),
        range,
      ];
    }),
  );
}

function movedLines(
  moved: Movement,
  top: number,
  screen: Screen,
  { bold, dim }: Palette,
): string[] {
  const { measure, before, after, total } = moved;
  const [was, is] = [total.before, total.after].map((value) => moveValue(value, measure));
  const heading = `${plainText(before.label, 60)} to ${plainText(after.label, 60)}: ${measureTitles[measure]} ${moveChange(total, measure)} (${was} → ${is})`;
  if (moved.files.length === 0) return [bold(heading), dim('Nothing moved.')];
  // Headers are never quite the same from one survey to the next.
  const large = moved.files.filter(
    ({ change }) => measure !== 'bytes' || Math.abs(change) > sameBytes,
  );
  const small = moved.files.slice(large.length);
  const rest = small.reduce((sum, { change }) => sum + change, 0);
  const parts: [string, readonly Move[], (move: Move) => string][] = [
    ['by reason', moved.reasons, ({ key }) => reasonWords(key)],
    ['by kind of bytes', moved.types, ({ key }) => key],
    ['by sender', moved.parties, ({ key }) => (key === '' ? 'own hosts' : key)],
    ['by page group', moved.groups, ({ key }) => nameOf(key)],
    ['by page', moved.pages, ({ key }) => nameOf(key)],
  ];
  return [
    bold(heading),
    moveTable(
      'file',
      [
        ...large
          .slice(0, top)
          .map((file) => [
            shorten(nameOf(file.key), 60),
            moveChange(file, measure),
            fileReason(file),
          ]),
        ...(small.length > 0
          ? [
              [
                count(small.length, 'small change'),
                moveChange({ change: rest }, measure),
                `at most ${sameBytes} B each`,
              ],
            ]
          : []),
      ],
      large.length,
      top,
      screen,
    ),
    ...parts.flatMap(([title, moves, wordsOf]) =>
      moves.length === 0
        ? []
        : [
            '',
            moveTable(
              title,
              moves
                .slice(0, top)
                .map((move) => [shorten(wordsOf(move), 60), moveChange(move, measure), '']),
              moves.length,
              top,
              screen,
            ),
          ],
    ),
  ];
}

function moveTable(
  title: string,
  rows: readonly (readonly string[])[],
  all: number,
  top: number,
  screen: Screen,
): string {
  const { dim } = paletteFor(screen);
  const drawn = table(
    screen,
    [{ title }, { title: 'change', align: 'right' }, { title: '', spare: true }],
    rows,
  );
  return all > top ? `${drawn}\n${dim(`${all - top} more; --top ${all} shows all.`)}` : drawn;
}
