import { asMarkup } from '../../core/base/markup-text.js';
import type { GateRow, GateView } from '../views/gate.js';
import {
  commandOf,
  culpritWords,
  sinceWords,
  subjectWords,
  unmatchedWords,
  verdictWords,
} from '../words/gate.js';
import { plainText } from '../words/plain-text.js';

/**
 * A gate as test results in JUnit's XML: a budget is a suite, what it was held against a case. What cannot be judged yet is
 * skipped, and a budget that names nothing is an error.
 */
export function gateJunit(view: GateView): string {
  const suites = new Map<string, string[]>();
  const add = (budget: string, testCase: string) =>
    suites.set(budget, [...(suites.get(budget) ?? []), testCase]);
  for (const row of view.judgements) add(row.budget.name, caseOf(row, view));
  for (const one of view.unmatched)
    add(
      one.budget.name,
      element('testcase', { classname: one.budget.name, name: 'what it names' }, [
        element('error', { message: unmatchedWords(one), type: 'unmatched' }, []),
      ]),
    );
  const all = [...suites];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    element(
      'testsuites',
      { name: 'zealous-lynx gate', ...countsOf(all.flatMap(([, cases]) => cases)) },
      all.map(([name, cases]) =>
        element(
          'testsuite',
          {
            name,
            ...countsOf(cases),
            skipped: String(cases.filter((one) => one.includes('<skipped')).length),
            ...(view.survey && { timestamp: view.survey.startedAt.slice(0, 19) }),
          },
          cases,
        ),
      ),
    ),
  ].join('\n');
}

function caseOf(row: GateRow, view: GateView): string {
  const detail = [culpritWords(row), sinceWords(row), row.budget.reason, commandOf(row, view)];
  const message = verdictWords(row);
  const outcome =
    row.verdict === 'broken'
      ? [
          element(
            'failure',
            { message, type: row.budget.measure },
            detail.filter(Boolean).map(text),
          ),
        ]
      : row.verdict === 'open'
        ? [element('skipped', {}, [text(message)])]
        : [];
  return element('testcase', { classname: row.budget.name, name: subjectWords(row) }, outcome);
}

function countsOf(cases: readonly string[]): Record<'tests' | 'failures' | 'errors', string> {
  const having = (tag: string) => String(cases.filter((one) => one.includes(tag)).length);
  return {
    tests: String(cases.length),
    failures: having('<failure '),
    errors: having('<error '),
  };
}

function element(
  name: string,
  attributes: Readonly<Record<string, string>>,
  content: readonly string[],
): string {
  const written = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${text(value)}"`)
    .join('');
  return content.length === 0
    ? `<${name}${written}/>`
    : [`<${name}${written}>`, ...content, `</${name}>`].join('\n');
}

/** Text without the characters that XML 1.0 does not have, however escaped. */
function text(words: string): string {
  return asMarkup(plainText(words, 1_000));
}
