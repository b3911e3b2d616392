import { pathOf } from '../../core/address/address.js';
import { keyOf } from '../../core/budgets/judgement.js';
import { judgementDocument } from '../../output/json/gate.js';
import {
  commandOf,
  culpritWords,
  sinceWords,
  subjectBeyondName,
  unmatchedWords,
  verdictWords,
} from '../../output/words/gate.js';
import { shorten } from '../../output/words/plain-text.js';
import type { GateResult } from '../gate/gate.js';

/** Something that somebody is to hear of: a budget that does not hold or names nothing, a site that is down, a round that failed. */
export interface Trouble {
  readonly kind: 'budget' | 'unmatched' | 'down' | 'failed';
  /** The same for the same trouble from one round to the next. */
  readonly key: string;
  /** What is wrong, in a line. */
  readonly title: string;
  /** What else is known of it, a line each. */
  readonly details: readonly string[];
  /** Of a budget: the judgement, as `gate --json` has it. */
  readonly judgement?: unknown;
}

/** What a gate has to raise the alarm about. */
export function troublesOf(result: GateResult): Trouble[] {
  return [
    ...result.judgements
      .filter(({ verdict }) => verdict === 'broken')
      .map((row): Trouble => {
        const culprit = culpritWords(row);
        return {
          kind: 'budget',
          key: `budget ${keyOf(row)}`,
          title: titleOf(row),
          details: [
            ...(culprit ? [`most of it: ${culprit}`] : []),
            sinceWords(row),
            `why: ${row.budget.reason}`,
            `more: ${commandOf(row, result)}`,
          ].filter(Boolean),
          judgement: judgementDocument(row, result),
        };
      }),
    ...result.unmatched.map((one): Trouble => ({
      kind: 'unmatched',
      key: `unmatched ${one.budget.name} ${one.setting}`,
      title: `the budget ${one.budget.name} says nothing: ${unmatchedWords(one)}`,
      details: [],
    })),
  ];
}

/** What does not hold, by how much, and what has the most part in it. */
function titleOf(row: GateResult['judgements'][number]): string {
  const { url, page } = row.culprit ?? {};
  const most = url === undefined || url === page ? '' : `, most of it ${shorten(pathIn(url), 80)}`;
  const words = [row.budget.name, subjectBeyondName(row), verdictWords(row)].filter(Boolean);
  return `${words.join(': ')}${most}`;
}

function pathIn(url: string): string {
  return /^https?:/.test(url) ? pathOf(url) : url;
}

/** Keys of alarms that may last, though nothing shows it: budgets of which the measurements are too few to tell. */
export function undecidedKeys({ judgements }: GateResult): string[] {
  return judgements
    .filter(({ verdict }) => verdict === 'open')
    .map((row) => `budget ${keyOf(row)}`);
}

/** A site, or a page of it, that cannot be reached. */
export function downTrouble(what: string, reason: string): Trouble {
  return {
    kind: 'down',
    key: `down ${what}`,
    // What failed may have been named with its reason.
    title: reason.includes(what) ? reason : `${what} cannot be reached: ${reason}`,
    details: ['nothing was measured; the history has no gap filled with zeros'],
  };
}

/** A round that came to nothing, though not because of the site. */
export function failedTrouble(reason: string): Trouble {
  return { kind: 'failed', key: 'failed', title: `the round failed: ${reason}`, details: [] };
}
