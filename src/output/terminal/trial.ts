import { groupBy } from '../../core/base/group-by.js';
import { formatSize } from '../../core/base/size.js';
import { plainText, shorten } from '../words/plain-text.js';
import { fixRow, verdictSentences } from '../words/trial.js';
import { count } from '../words/units.js';
import type { TriedPageView, TrialView } from '../views/trial.js';
import { drawComparison, drawWaterfallPair } from './compare.js';
import { paletteFor, table, wrapped } from './style.js';
import type { Screen } from './style.js';

/** All pages of a trial: what the fixes are, what they bring, and what has to be known of the replay. */
export function drawTrial({ pages, choice, waterfalls }: TrialView, screen: Screen): string {
  return pages
    .flatMap((page) => [
      drawPage(page, screen),
      ...(waterfalls ? drawWaterfallPair(page, choice, screen) : []),
    ])
    .join('\n\n');
}

function drawPage(page: TriedPageView, screen: Screen): string {
  const { bold, dim } = paletteFor(screen);
  const { before, after } = page;
  return [
    bold(`Trial of ${plainText(before.page)}`),
    ...verdictSentences(page.comparison).map((sentence) => wrapped(plainText(sentence), screen)),
    '',
    ...drawFixes(page, screen),
    '',
    drawComparison(page, screen),
    ...(page.warm ? ['', bold('A second visit'), drawComparison(page.warm, screen)] : []),
    '',
    ...placementLines(page),
    ...replayLines(page),
    dim(
      `Recording ${page.recording}; compare ${before.label} ${after.label} --waterfalls draws both loads.`,
    ),
  ].join('\n');
}

function drawFixes({ fixes }: TriedPageView, screen: Screen): string[] {
  const { dim } = paletteFor(screen);
  if (fixes.length === 0) return ['No fix: both sides are the page as it is.'];
  const measured = fixes.some(({ alone }) => alone);
  const predicts = fixes.some(({ predicted }) => predicted);
  const rows = fixes.map(fixRow);
  const right = 'right' as const;
  return [
    table(
      screen,
      [
        { title: 'fix' },
        // Measured numbers leave no room for it.
        ...(measured ? [] : [{ title: 'what it does', wraps: true, least: 30 }]),
        { title: 'changed', align: right },
        ...[
          ...(measured ? ['largest paint', 'load', 'bytes'] : []),
          ...(predicts ? ['predicted paint', 'predicted load'] : []),
        ].map((title) => ({ title, align: right })),
      ],
      rows.map(({ name, title, changed, largest, load, bytes, predicted }) => [
        name,
        ...(measured ? [] : [title]),
        changed,
        ...(measured ? [largest, load, bytes] : []),
        ...(predicts ? [predicted.largest, predicted.load] : []),
      ]),
    ),
    ...fixes.flatMap(({ name, notes }) => notes.map((note) => dim(plainText(`${name}: ${note}`)))),
    ...(measured
      ? [
          dim(
            'Largest paint, load and bytes: the page with this fix alone, less the page as it is, both loaded.',
          ),
        ]
      : []),
    ...(predicts
      ? [
          dim(
            'Predicted: what a simulation of the load gives for this fix alone; – where it cannot tell.',
          ),
        ]
      : []),
    ...(measured ? [] : [dim('--each loads the page with each fix alone.')]),
  ];
}

/** The most lines of one kind. */
const most = 8;

function placementLines({ moved, unpaired }: TriedPageView): string[] {
  if (moved.length === 0 && unpaired === 0)
    return ['Placements: every image is shown in the size that it had.'];
  return [
    `Placements: ${count(moved.length, 'image')} shown in another size${unpaired > 0 ? `; ${count(unpaired, 'placement')} only on one side` : ''}`,
    ...shortened(
      moved.map(
        ({ before, after }) =>
          `${shorten(before.selector, 60)}: ${formatSize(rounded(before.slot))} px, with the fixes ${formatSize(rounded(after.slot))}`,
      ),
    ),
  ];
}

function rounded({ width, height }: { readonly width: number; readonly height: number }) {
  return { width: Math.round(width), height: Math.round(height) };
}

function replayLines({ missing, unrecorded, alike }: TriedPageView): string[] {
  return [
    ...(unrecorded.length > 0
      ? [
          `Replay: ${count(unrecorded.length, 'request')} not in the recording, answered with 404`,
          ...shortened(
            unrecorded.map(
              ({ method, url, referrer }) =>
                `${method} ${shorten(url, 70)}${referrer && ` (from ${shorten(referrer, 50)})`}`,
            ),
          ),
        ]
      : ['Replay: every request was in the recording.']),
    ...(alike.length > 0
      ? [
          `Replay: ${count(alike.length, 'address', 'addresses')} that differ from load to load got the response to one that is alike`,
          ...shortened(
            [...groupBy(alike, ({ given }) => given)].map(
              ([given, some]) => `${shorten(given, 90)}: ${count(some.length, 'time')}`,
            ),
          ),
        ]
      : []),
    ...(missing.length > 0
      ? [
          `Recording: ${count(missing.length, 'body', 'bodies')} could not be kept`,
          ...shortened(missing.map(({ url, reason }) => `${shorten(url, 70)}: ${reason}`)),
        ]
      : []),
  ];
}

function shortened(lines: readonly string[]): string[] {
  const shown = lines.slice(0, most).map((line) => `  ${plainText(line)}`);
  const left = lines.length - shown.length;
  return left > 0 ? [...shown, `  and ${left} more; --json has them all`] : shown;
}
