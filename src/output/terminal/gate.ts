import type { GateRow, GateView } from '../views/gate.js';
import {
  commandOf,
  culpritWords,
  gateLine,
  sinceWords,
  subjectBeyondName,
  unmatchedWords,
  verdictWords,
} from '../words/gate.js';
import { plainText } from '../words/plain-text.js';
import { paletteFor, table } from './style.js';
import type { Palette, Screen } from './style.js';

/** What does not hold, the worst first, each with its reason and the call that tells more; then the rest in a table. */
export function drawGate(view: GateView, screen: Screen): string {
  const palette = paletteFor(screen);
  const { bold, dim, red, green } = palette;
  const { judgements, unmatched, survey, sessions } = view;
  const broken = judgements.filter(({ verdict }) => verdict === 'broken');
  const rest = judgements.filter(({ verdict }) => verdict !== 'broken');
  const shown = rest.slice(0, view.top);
  const left = rest.length - shown.length;
  const of = [
    ...(survey ? [`survey ${plainText(survey.label, 60)} (${survey.startedAt.slice(0, 10)})`] : []),
    ...(sessions.length > 0
      ? [`loads ${sessions.map((label) => plainText(label, 40)).join(', ')}`]
      : []),
  ];
  const paint = broken.length > 0 ? red : green;
  return [
    `${bold(view.hosts.map((host) => plainText(host)).join(', '))}: ${of.join(', ')}`,
    ...(view.leftOut.length > 0
      ? [
          dim(
            `Not judged, because interrupted or without a page: ${view.leftOut.map((label) => plainText(label, 40)).join(', ')}.`,
          ),
        ]
      : []),
    paint(`${gateLine(view)}.`),
    ...broken.flatMap((row) => ['', ...brokenLines(row, view, palette)]),
    ...unmatched.flatMap((one) => [
      '',
      `${red('?')} ${bold(plainText(one.budget.name))}`,
      `  ${unmatchedWords(one)}`,
    ]),
    ...(shown.length > 0 ? ['', restTable(shown, screen)] : []),
    ...(left > 0
      ? [dim(`${left.toLocaleString('en')} more; --top ${rest.length} shows all.`)]
      : []),
  ].join('\n');
}

function brokenLines(row: GateRow, view: GateView, { bold, dim, red }: Palette): string[] {
  const culprit = culpritWords(row);
  const subject = subjectBeyondName(row);
  return [
    `${red('✗')} ${bold(plainText(row.budget.name))}${subject && `: ${plainText(subject, 160)}`}`,
    `  ${verdictWords(row)}`,
    ...(culprit ? [`  most of it: ${culprit}`] : []),
    ...(row.since ? [`  ${sinceWords(row)}`] : []),
    `  ${dim(`why: ${plainText(row.budget.reason)}`)}`,
    `  ${dim(`more: ${commandOf(row, view)}`)}`,
  ];
}

function restTable(rows: readonly GateRow[], screen: Screen): string {
  return table(
    screen,
    [
      { title: '' },
      { title: 'budget' },
      { title: 'of', spare: true },
      { title: 'measured and allowed', wraps: true, least: 30 },
    ],
    rows.map((row) => [
      row.verdict === 'holds' ? '✓' : '…',
      plainText(row.budget.name, 60),
      plainText(subjectBeyondName(row), 48),
      verdictWords(row),
    ]),
  );
}
