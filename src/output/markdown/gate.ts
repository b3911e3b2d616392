import type { GateView } from '../views/gate.js';
import {
  commandOf,
  culpritWords,
  gateLine,
  sinceWords,
  subjectWords,
  unmatchedWords,
  verdictWords,
} from '../words/gate.js';
import { asCode, escaped } from './markdown.js';

/** The most rows of what does not hold: a comment is read by people. */
const mostRows = 30;

/** A gate as the body of a comment in a code review. */
export function gateMarkdown(view: GateView): string {
  const broken = view.judgements.filter(({ verdict }) => verdict === 'broken');
  const open = view.judgements.filter(({ verdict }) => verdict === 'open');
  const shown = broken.slice(0, mostRows);
  return [
    `**${escaped(view.hosts.join(', '))}**: ${gateLine(view)}.`,
    ...(broken.length > 0
      ? [
          '',
          '| budget | of | measured | most of it | since |',
          '| --- | --- | --- | --- | --- |',
          ...shown.map((row) =>
            tableRow([
              escaped(row.budget.name),
              escaped(subjectWords(row)),
              escaped(verdictWords(row)),
              escaped(culpritWords(row)),
              escaped(sinceWords(row)),
            ]),
          ),
          ...(broken.length > shown.length ? ['', `${broken.length - shown.length} more.`] : []),
          '',
          ...shown.map((row) => `- ${escaped(row.budget.name)}: ${asCode(commandOf(row, view))}`),
        ]
      : []),
    ...(open.length > 0
      ? [
          '',
          ...open.map(
            (row) =>
              `- not clear yet: ${escaped(row.budget.name)}, ${escaped(subjectWords(row))}: ${escaped(verdictWords(row))}`,
          ),
        ]
      : []),
    ...view.unmatched.map(
      (one) => `\n**${escaped(one.budget.name)}** says nothing: ${escaped(unmatchedWords(one))}`,
    ),
  ].join('\n');
}

function tableRow(cells: readonly string[]): string {
  return `| ${cells.join(' | ')} |`;
}
