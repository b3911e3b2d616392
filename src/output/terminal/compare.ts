import type { Change, SessionComparison } from '../../core/load/comparison.js';
import { leastRuns } from '../../core/load/bootstrap.js';
import { describeConditions } from '../../core/visitors/conditions.js';
import { markerNames, markerTitles } from '../../core/load/markers.js';
import { requestTypes } from '../../core/load/request.js';
import type { Looks } from '../../core/pixels/looks.js';
import { formatSize } from '../../core/base/size.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import type { Session } from '../../core/load/session.js';
import { plainText, shorten } from '../plain-text.js';
import { requestName } from '../request-words.js';
import { count, formatBytes, formatTime, formatShare } from '../units.js';
import {
  changeWords,
  formatMarker,
  sameBytes,
  signed,
  sizeWords,
  timeWords,
} from '../change-words.js';
import type { Words } from '../change-words.js';
import { joined, paletteFor, table } from './style.js';
import type { Palette, Screen } from './style.js';

export interface CompareSheet {
  readonly before: Session;
  readonly after: Session;
  readonly comparison: SessionComparison;
  readonly requests: readonly RequestChange[];
  readonly looks: Looks | null;
}

/** Two sessions side by side: each marker, the bytes and the requests. */
export function drawComparison(
  { before, after, comparison, requests, looks }: CompareSheet,
  screen: Screen,
): string {
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
              : ['conditions not told on both sides: what differs may be theirs'],
            screen,
          ),
        )
      : differing
          .map((each) =>
            yellow(`conditions differ: ${each.condition} was ${each.before}, is ${each.after}`),
          )
          .join('\n'),
    '',
    table(
      screen,
      [
        { title: 'median of' },
        ...['before', 'after', 'change', 'per cent', '95 % of it between'].map((title) => ({
          title,
          align: 'right' as const,
        })),
        { title: 'what the runs show' },
      ],
      [
        ...markers,
        rowOf('requests', comparison.requestCount, String, palette) ?? [],
        rowOf('bytes', comparison.bytes, formatBytes, palette) ?? [],
        ...bytes,
      ],
    ),
    ...drawRequests(requests, screen),
    ...drawLooks(looks, screen),
    ...footnotes(comparison).flatMap((words) => ['', dim(words)]),
  ].join('\n');
}

/** The requests whose bytes changed the most; the JSON has them all. */
const shownRequests = 10;

function drawRequests(changes: readonly RequestChange[], screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const gone = changes.filter(({ after }) => after === null).length;
  const fresh = changes.filter(({ before }) => before === null).length;
  const kept = changes.filter(({ by }) => by !== null);
  const smaller = kept.filter(({ bytes }) => bytes < -sameBytes).length;
  const larger = kept.filter(({ bytes }) => bytes > sameBytes).length;
  const rows = changes
    .filter(({ bytes, by }) => by === null || Math.abs(bytes) > sameBytes)
    .sort((a, b) => Math.abs(b.bytes) - Math.abs(a.bytes))
    .slice(0, shownRequests)
    .map(({ before, after, bytes, end }) => [
      shorten(requestName((after ?? before)!), 46),
      before ? formatBytes(before.transferBytes) : 'new',
      after ? formatBytes(after.transferBytes) : 'gone',
      signed(bytes, formatBytes),
      end === null ? '–' : `${formatTime(Math.abs(end))} ${end < 0 ? 'earlier' : 'later'}`,
    ]);
  if (rows.length === 0) return ['', dim('The requests of the median runs are the same.')];
  return [
    '',
    `${bold('Requests of the median runs')}: ${gone} gone, ${fresh} new, ${smaller} smaller, ${larger} larger`,
    table(
      screen,
      [
        { title: 'request' },
        ...['before', 'after', 'bytes', 'its last byte comes'].map((title) => ({
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
  const { similarity, changedShare, regions, before, after } = looks;
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
  const drawn = changedShare === 0 ? [] : [dim('--looks FILE draws where')];
  return ['', `${bold('Looks')}: similarity ${similarity.toFixed(4)}; ${words}${taller}`, ...drawn];
}

/** What is to be known of the verdicts. */
function footnotes({ markers, bytes }: SessionComparison): string[] {
  const all = [...Object.values(markers), bytes];
  const few = all.some(({ before, after, verdict }) => before && after && verdict === null);
  const open = all.some(({ verdict }) => verdict === 'open');
  return [
    ...(few
      ? [
          `fewer than ${leastRuns} loads on a side: nothing can be claimed of them, clock more --runs`,
        ]
      : []),
    ...(open
      ? ['nothing: no difference that these runs can show; so many runs a side may settle it']
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
