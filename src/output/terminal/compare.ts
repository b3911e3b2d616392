import type { Change, SessionComparison } from '../../core/load/comparison.js';
import { leastRuns } from '../../core/load/bootstrap.js';
import { describeConditions } from '../../core/visitors/conditions.js';
import { markerNames, markerTitles } from '../../core/load/markers.js';
import { serverShift } from '../../core/load/server-shift.js';
import { requestTypes } from '../../core/load/request.js';
import type { Looks } from '../../core/pixels/looks.js';
import { formatSize } from '../../core/base/size.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import { mostName, plainText, shorten } from '../words/plain-text.js';
import { requestName } from '../words/request.js';
import { count, formatBytes, formatTime, formatShare } from '../words/units.js';
import {
  changeWords,
  formatMarker,
  sameBytes,
  signed,
  sizeWords,
  timeWords,
} from '../words/change.js';
import type { Words } from '../words/change.js';
import { agreementLines } from '../words/tried-before.js';
import type { ComparedPageView, CompareView } from '../views/compare.js';
import { loadsOf } from '../views/compare.js';
import { lengthOf } from '../../core/load/request-view.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import { drawWaterfall } from './waterfall.js';
import { joined, paletteFor, table, wrapped } from './style.js';
import type { Palette, Screen } from './style.js';

/** All pages of a comparison, with both waterfalls where they are wanted. */
export function drawCompare({ pages, choice, waterfalls }: CompareView, screen: Screen): string {
  return pages
    .flatMap((page) => [
      drawComparison(page, screen),
      ...(waterfalls ? drawWaterfallPair(page, choice, screen) : []),
    ])
    .join('\n\n');
}

/** Both waterfalls on an axis as long as the longer of them. */
export function drawWaterfallPair(
  page: ComparedPageView,
  choice: RequestChoice,
  screen: Screen,
): string[] {
  const loads = loadsOf(page, choice);
  const length = Math.max(
    ...loads.map(({ run, chosen }) => lengthOf(chosen.rows, run.markers.load)),
  );
  return loads.map(({ session, run, chosen }) =>
    [
      paletteFor(screen).bold(plainText(session.label)),
      drawWaterfall(run, chosen, screen, length),
    ].join('\n'),
  );
}

/** Two sessions side by side: each marker, the bytes and the requests. */
export function drawComparison(page: ComparedPageView, screen: Screen): string {
  const { before, after, comparison, requests, looks } = page;
  const palette = paletteFor(screen);
  const { bold, dim, yellow } = palette;
  const differing = comparison.differingConditions;
  const conditions = Object.entries(describeConditions(before.conditions));
  const pages = before.page === after.page ? before.page : `${before.page} and ${after.page}`;
  const markers = markerNames.flatMap((name) => {
    const row = rowOf(
      markerTitles[name],
      comparison.markers[name],
      (value) => formatMarker(name, value),
      palette,
      name === 'layoutShift' ? sizeWords : timeWords,
    );
    return row ? [row] : [];
  });
  const bytes = requestTypes.flatMap((type) => {
    const change = comparison.bytesByType[type];
    if (!change.before?.max && !change.after?.max) return [];
    return [rowOf(`bytes: ${type}`, change, formatBytes, palette) ?? []];
  });
  return [
    `${bold(plainText(before.label))} (${count(before.runs.length, 'load')}) and ${bold(plainText(after.label))} (${count(after.runs.length, 'load')}): ${plainText(pages)}`,
    differing.length === 0
      ? dim(
          joined(
            before.conditions && after.conditions
              ? ['same conditions', ...conditions.map(([name, words]) => `${name} ${words}`)]
              : ['conditions are not known on both sides: they may explain the difference'],
            screen,
          ),
        )
      : differing
          .map((each) =>
            yellow(`conditions differ: ${each.condition} was ${each.before}, now ${each.after}`),
          )
          .join('\n'),
    '',
    table(
      screen,
      [
        { title: 'median', wraps: true, least: 16 },
        ...['before', 'after', 'change', 'percent', '95 % interval'].map((title, at) => ({
          title,
          align: 'right' as const,
          spare: at > 2,
        })),
        { title: 'verdict', wraps: true, least: 16 },
      ],
      [
        ...markers,
        rowOf('requests', comparison.requestCount, String, palette) ?? [],
        rowOf('bytes', comparison.bytes, formatBytes, palette) ?? [],
        ...bytes,
      ],
    ),
    ...serverLines(comparison).map(yellow),
    ...drawTried(page, screen),
    ...drawRequests(requests, screen),
    ...drawLooks(looks, screen),
    ...footnotes(comparison).flatMap((words) => ['', dim(words)]),
  ].join('\n');
}

/** Whether it brought what a trial had said. */
function drawTried({ tried, comparison }: ComparedPageView, screen: Screen): string[] {
  if (tried === null) return [];
  const { bold } = paletteFor(screen);
  return [
    '',
    bold('Against the trial'),
    ...agreementLines(tried, comparison).map((line) => `  ${line}`),
  ];
}

/** What the server itself did to the times, in words. */
function serverLines({ markers }: SessionComparison): string[] {
  const shift = serverShift(markers);
  if (!shift) return [];
  const { difference, moved } = shift;
  const told = `The server itself was ${formatTime(Math.abs(difference))} ${difference < 0 ? 'faster' : 'slower'} (time to first byte)`;
  const names = moved.map((name) => markerTitles[name]).join(', ');
  return [
    moved.length > 0
      ? `${told}; ${names} moved with it: that is not the page.`
      : `${told}; the paints did not move with it.`,
  ];
}

/** The requests whose bytes changed the most; the JSON has them all. */
const shownRequests = 10;

function drawRequests(changes: readonly RequestChange[], screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const put = changes.filter(({ putOff }) => putOff);
  const gone = changes.filter(({ after, putOff }) => after === null && !putOff).length;
  const fresh = changes.filter(({ before }) => before === null).length;
  const kept = changes.filter(({ by }) => by !== null);
  const smaller = kept.filter(({ bytes }) => bytes < -sameBytes).length;
  const larger = kept.filter(({ bytes }) => bytes > sameBytes).length;
  const rows = changes
    .filter(({ bytes, by }) => by === null || Math.abs(bytes) > sameBytes)
    .sort((a, b) => Math.abs(b.bytes) - Math.abs(a.bytes))
    .slice(0, shownRequests)
    .map(({ before, after, putOff, bytes, end }) => [
      shorten(requestName((after ?? before)!), mostName),
      before ? formatBytes(before.transferBytes) : 'new',
      after ? formatBytes(after.transferBytes) : putOff ? 'put off' : 'gone',
      signed(bytes, formatBytes),
      end === null ? '–' : `${formatTime(Math.abs(end))} ${end < 0 ? 'earlier' : 'later'}`,
    ]);
  if (rows.length === 0) return ['', dim('The requests of the median runs are the same.')];
  return [
    '',
    `${bold('Requests of the median runs')}: ${gone} gone, ${fresh} new, ${smaller} smaller, ${larger} larger`,
    ...(put.length > 0
      ? [
          `${count(put.length, 'lazy image')} with ${formatBytes(-put.reduce((sum, { bytes }) => sum + bytes, 0))} put off until somebody scrolls there (loading="lazy"), not saved`,
        ]
      : []),
    table(
      screen,
      [
        { title: 'request', least: 30 },
        ...['before', 'after', 'bytes', 'last byte'].map((title) => ({
          title,
          align: 'right' as const,
        })),
      ],
      rows,
    ),
  ];
}

/** Whether the page still looks the same. */
function drawLooks(looks: Looks | null, screen: Screen): string[] {
  if (looks === null) return [];
  const { bold, dim } = paletteFor(screen);
  const { similarity, changedShare, restlessShare, regions, before, after } = looks;
  const share = formatShare(changedShare, 1);
  const [most] = regions;
  const where = most
    ? `, most of it ${formatSize(most)} px at left ${most.left}, top ${most.top}`
    : '';
  const words =
    changedShare === 0
      ? 'nothing on the page looks different'
      : `${share} of the page looks different${where}`;
  const grown = after.height - before.height;
  const taller =
    grown === 0 ? '' : `; the page is ${Math.abs(grown)} px ${grown > 0 ? 'longer' : 'shorter'}`;
  const noise =
    restlessShare === 0
      ? ''
      : `; ${formatShare(restlessShare, 1)} of it differs between two equal loads and is left out`;
  const drawn = changedShare === 0 ? [] : [dim('--looks FILE draws where.')];
  return [
    '',
    wrapped(
      `${bold('Looks')}: similarity ${similarity.toFixed(4)}; ${words}${taller}${noise}`,
      screen,
    ),
    ...drawn,
  ];
}

/** The explanation of the verdicts. */
function footnotes({ markers, bytes }: SessionComparison): string[] {
  const all = [...Object.values(markers), bytes];
  const few = all.some(({ before, after, verdict }) => before && after && verdict === null);
  const open = all.some(({ verdict }) => verdict === 'open');
  return [
    ...(few
      ? [`No verdict: fewer than ${leastRuns} loads on a side. Run clock with more --runs.`]
      : []),
    ...(open
      ? [
          'Not clear yet: the runs scatter too much for the difference. The number of runs is for each side.',
        ]
      : []),
  ];
}

function rowOf(
  title: string,
  change: Change,
  format: (value: number) => string,
  { green, red, dim }: Palette,
  words: Words = sizeWords,
): string[] | undefined {
  if (!change.before && !change.after) return undefined;
  const { before, after, moved, percent, interval, verdict } = changeWords(change, format, words);
  const tint = change.verdict === 'less' ? green : change.verdict === 'more' ? red : dim;
  return [title, before, after, tint(moved), tint(percent), dim(interval), tint(verdict)];
}
