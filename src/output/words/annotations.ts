import type { GateView } from '../views/gate.js';
import { culpritWords, subjectBeyondName, unmatchedWords, verdictWords } from './gate.js';
import { plainText } from './plain-text.js';

/**
 * A gate as lines for the log of a build, as compilers write them (GNU Coding Standards, formatting error messages): the
 * file that the budgets are in, the weight of the message, the message.
 */
export function gateAnnotations(view: GateView & { readonly config: string }): string {
  const line = (weight: string, words: string) =>
    `${plainText(view.config)}: ${weight}: ${plainText(words, 1_000)}`;
  return [
    ...view.judgements.flatMap((row) => {
      if (row.verdict === 'holds') return [];
      const culprit = culpritWords(row);
      return line(
        row.verdict === 'broken' ? 'error' : 'warning',
        `${[row.budget.name, subjectBeyondName(row), verdictWords(row)].filter(Boolean).join(': ')}${culprit && `; most of it: ${culprit}`}`,
      );
    }),
    ...view.unmatched.map((one) => line('error', `${one.budget.name}: ${unmatchedWords(one)}`)),
  ].join('\n');
}
