import { requestTypes, totalBytes } from '../../core/request.js';
import type { SkippedAddress, SurveyHead, SurveyedPage } from '../../core/survey.js';
import { pathOf, plainText, shorten } from '../plain-text.js';
import { count, formatBytes } from '../units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

export interface SurveySheet {
  readonly survey: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly skipped: readonly SkippedAddress[];
  readonly interrupted: boolean;
}

/** A survey as a page of text: one row a page, what was passed over, and what to do next. */
export function drawSurvey(sheet: SurveySheet, top: number, screen: Screen): string {
  const { bold, dim, yellow } = paletteFor(screen);
  const { survey, pages, skipped, interrupted } = sheet;
  const heaviest = [...pages].sort((a, b) => totalBytes(b.bytesByType) - totalBytes(a.bytesByType));
  const shown = heaviest.slice(0, top);
  const origin = survey.starts[0] ? new URL(survey.starts[0]).origin : '';
  const problems = pages.filter(({ error }) => error !== null);
  const left = pages.length - shown.length;
  return [
    `${bold(plainText(survey.label))}: ${count(pages.length, 'page')} surveyed in ${count(survey.views.length, 'view')}, the heaviest first`,
    '',
    table(
      screen,
      [
        { title: 'page' },
        { title: 'status', align: 'right' },
        { title: 'weight', align: 'right' },
        ...requestTypes.map((type) => ({ title: type, align: 'right' as const })),
      ],
      shown.map((page) => rowOf(page, origin, Math.max(20, screen.width - 76))),
    ),
    ...(left > 0
      ? [dim(`${count(left, 'more page')}: --top ${pages.length} shows them all.`)]
      : []),
    '',
    ...problems.map(({ url, error }) =>
      yellow(`! ${shorten(pathOf(url, origin), 60)}: ${plainText(error!)}`),
    ),
    ...skippedLines(skipped).map(dim),
    ...(interrupted
      ? [
          yellow(
            'Stopped. What was surveyed is kept; zealous-lynx survey --resume goes on from there.',
          ),
        ]
      : []),
    'Next: zealous-lynx rank shows which images waste the most.',
  ].join('\n');
}

function rowOf({ url, status, bytesByType, error }: SurveyedPage, origin: string, room: number) {
  const cell = (bytes: number) => (bytes > 0 ? formatBytes(bytes) : '–');
  return [
    `${error === null ? '' : '! '}${shorten(pathOf(url, origin), room)}`,
    status === null ? '–' : String(status),
    cell(totalBytes(bytesByType)),
    ...requestTypes.map((type) => cell(bytesByType[type])),
  ];
}

/** Reasons for passing addresses over, with how often each was the one. */
function skippedLines(skipped: readonly SkippedAddress[]): string[] {
  const counts = new Map<string, number>();
  for (const { url, reason } of skipped) {
    const words = reason.startsWith('leads to ') ? `${url} ${reason}` : reason;
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([reason, times]) =>
    times === 1
      ? `passed over: ${plainText(reason)}`
      : `passed over, ${times} times: ${plainText(reason)}`,
  );
}
