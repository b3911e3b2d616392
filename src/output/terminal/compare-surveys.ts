import { pathOf } from '../../core/address/address.js';
import type { ComparedSurveys } from '../../core/rank/survey-comparison.js';
import { signed } from '../words/change.js';
import { plainText, shorten } from '../words/plain-text.js';
import { surveyLines } from '../words/survey-lines.js';
import type { CompareSurveysView } from '../views/compare-surveys.js';
import { formatBytes } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

type Changes = ComparedSurveys['comparison']['images' | 'pages'];

/** Two surveys side by side: an average visit, then the images and pages that changed most. */
export function drawSurveyComparison(
  { compared, top }: CompareSurveysView,
  screen: Screen,
): string {
  const { bold, yellow } = paletteFor(screen);
  const { before, after, comparison } = compared;
  const broken = [before, after].filter(({ finishedAt }) => finishedAt === null);
  const right = 'right' as const;
  return [
    `${bold(plainText(before.label))} and ${bold(plainText(after.label))}: ${plainText(before.starts[0] ?? '')}`,
    ...broken.map(({ label }) =>
      yellow(`${plainText(label)} was interrupted: pages it did not reach are missing`),
    ),
    '',
    table(
      screen,
      [
        { title: 'an average visit' },
        ...['before', 'after', 'change', 'percent'].map((title) => ({ title, align: right })),
      ],
      surveyLines(compared).map(({ title, ...cells }) => [
        title,
        cells.before,
        cells.after,
        cells.change,
        cells.percent,
      ]),
    ),
    ...drawChanges('Images', comparison.images, top, screen),
    ...drawChanges('Pages', comparison.pages, top, screen),
  ].join('\n');
}

function drawChanges(title: string, changes: Changes, top: number, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const all = [...changes];
  const gone = all.filter(({ after }) => after === null).length;
  const fresh = all.filter(({ before }) => before === null).length;
  const changed = all.filter(
    ({ perVisit, bytes, by }) => by === null || perVisit !== 0 || bytes !== 0,
  );
  const heading = `${bold(title)}: ${gone} gone, ${fresh} new, ${changed.length - gone - fresh} changed, ${all.length - changed.length} the same`;
  if (changed.length === 0) return ['', heading];
  const shown = changed.slice(0, top);
  const left = changed.length - shown.length;
  return [
    '',
    heading,
    table(
      screen,
      [
        { title: title.toLowerCase() },
        ...['before', 'after', 'images/visit'].map((name) => ({
          title: name,
          align: 'right' as const,
        })),
      ],
      shown.map(({ before, after, perVisit }) => [
        shorten(pathOf((after ?? before)!.url), 52),
        before ? sizeOf(before) : 'new',
        after ? sizeOf(after) : 'gone',
        signed(perVisit, formatBytes),
      ]),
    ),
    ...(left > 0
      ? [dim(`${left.toLocaleString('en')} more; --top ${changed.length} shows all.`)]
      : []),
  ];
}

function sizeOf(item: { readonly bytes: number; readonly error?: string | null }): string {
  return item.error ? 'failed' : formatBytes(item.bytes);
}
