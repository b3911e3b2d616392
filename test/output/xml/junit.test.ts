import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { describe, expect, it } from 'vitest';
import type { GateRow, GateView } from '../../../src/output/views/gate.js';
import { gateJunit } from '../../../src/output/xml/junit.js';

/** What a strict parser of XML finds: the elements with their attributes. */
function elements(xml: string): { name: string; attributes: Record<string, string> }[] {
  const found: { name: string; attributes: Record<string, string> }[] = [];
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ name, attributes }) => found.push({ name, attributes }));
  parser.write(xml).close();
  return found;
}

const rowOf = (name: string, verdict: GateRow['verdict'], url: string): GateRow => ({
  ...{ verdict, unit: 'bytes', value: 2, allowed: 1, interval: null, was: null, note: null },
  budget: { name, measure: 'bytes', most: 1, reason: name },
  subject: { page: url, group: null, view: null, network: null },
  culprit: { url, page: url, view: null, placement: null, value: 2 },
  since: null,
});

const viewOf = (judgements: readonly GateRow[]): GateView => ({
  ...{ hosts: ['a.test'], survey: null, leftOut: [], sessions: [], unmatched: [], top: 9 },
  judgements,
});

describe('results as JUnit XML', () => {
  it('count what failed, was skipped and held, budget by budget', () => {
    const xml = gateJunit(
      viewOf([
        rowOf('one', 'broken', 'http://a.test/1'),
        rowOf('one', 'holds', 'http://a.test/2'),
        rowOf('two', 'open', 'http://a.test/1'),
      ]),
    );
    const found = elements(xml);
    expect(found[0]).toMatchObject({ name: 'testsuites', attributes: { tests: '3' } });
    const suites = found.filter(({ name }) => name === 'testsuite');
    expect(suites.map(({ attributes }) => attributes)).toMatchObject([
      { name: 'one', tests: '2', failures: '1', skipped: '0' },
      { name: 'two', tests: '1', failures: '0', skipped: '1' },
    ]);
    expect(found.filter(({ name }) => name === 'testcase')).toHaveLength(3);
  });

  it('are well-formed whatever budgets and pages are called', () => {
    const anything = fc.string({ unit: 'binary', minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(anything, anything, (name, path) => {
        const rows = (['broken', 'open', 'holds'] as const).map((verdict) =>
          rowOf(name, verdict, `http://a.test/${path}`),
        );
        expect(elements(gateJunit(viewOf(rows))).length).toBeGreaterThan(4);
      }),
    );
  });
});
