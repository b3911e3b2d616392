import { describe, expect, it } from 'vitest';
import type { Budget } from '../../../src/core/budgets/budget.js';
import { budgetName } from '../../../src/core/budgets/budget-name.js';
import { judgeLoads } from '../../../src/core/budgets/judge-loads.js';
import { judgeSurvey } from '../../../src/core/budgets/judge-survey.js';
import { MeasuredSurvey } from '../../../src/core/budgets/measured-survey.js';
import { suggestBudgets } from '../../../src/core/budgets/suggest.js';
import { findingKinds } from '../../../src/core/findings/index.js';
import { noMarkers } from '../../../src/core/load/markers.js';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { RankedImage } from '../../../src/core/rank/ranked-image.js';
import { rankImages } from '../../../src/core/rank/ranking.js';
import { SentVisits } from '../../../src/core/rank/sent-visits.js';
import { noResources } from '../../../src/core/survey/resource.js';
import { builtInNetworks } from '../../../src/core/visitors/network.js';
import { defaultViews } from '../../../src/core/visitors/view.js';
import { plainSketch, surveyOf } from '../../support/survey-facts.js';
import type { FileSketch } from '../../support/survey-facts.js';

function measured(sketches: readonly FileSketch[]): MeasuredSurvey {
  const facts = surveyOf(sketches);
  const { ledger } = rankImages(facts, defaultPolicy);
  const urls = facts.files.map((_, at) => new RankedImage(ledger, at).url);
  const findings = [{ id: 'failed-file', url: 'http://a.test/x', pages: ['http://a.test/1'] }];
  const sent = new SentVisits(ledger, noResources);
  return new MeasuredSurvey(sent, facts.pages, urls, () => findings);
}

const budgetOf = (budget: Omit<Budget, 'name' | 'reason'>): Budget => ({
  ...budget,
  name: budgetName(budget),
  reason: 'a test',
});

const site = measured([
  { ...plainSketch, bytes: 10_000, pages: [0] },
  { ...plainSketch, bytes: 4_000, pages: [1], thirdParty: true },
]);

const judge = (budget: Omit<Budget, 'name' | 'reason'>, before?: MeasuredSurvey) =>
  judgeSurvey(site, [budgetOf(budget)], () => before).judgements;

describe('budgets of surveys', () => {
  it('hold the average visit of the site, each page, each group, each view', () => {
    expect(judge({ measure: 'bytes', most: 7_200 })).toMatchObject([
      { value: 7_200, verdict: 'holds', subject: { page: null, view: null } },
    ]);
    expect(judge({ measure: 'bytes', most: 7_199 })).toMatchObject([{ verdict: 'broken' }]);
    const pages = judge({ measure: 'bytes', page: '/*', most: 5_000 });
    expect(pages.map(({ subject, value, verdict }) => [subject.page, value, verdict])).toEqual([
      ['http://a.test/0', 10_200, 'broken'],
      ['http://a.test/1', 4_200, 'holds'],
    ]);
    expect(judge({ measure: 'bytes', group: 'ev*', most: 1 })).toMatchObject([
      { subject: { group: 'even' }, value: 10_200 },
    ]);
    expect(judge({ measure: 'requests', view: '*', most: 1 })).toHaveLength(2);
  });

  it('say what has the most part in it, and where it is', () => {
    const [judged] = judge({ measure: 'heaviestImage', most: 5_000 });
    expect(judged).toMatchObject({
      value: 10_000,
      verdict: 'broken',
      culprit: {
        url: 'http://a.test/0-0.jpg',
        page: 'http://a.test/0',
        placement: { kind: 'img', selector: 'ul > li:nth-of-type(1) > img' },
      },
    });
  });

  it('count only what they are about', () => {
    expect(judge({ measure: 'bytes', party: 'third', most: 0 })).toMatchObject([{ value: 2_100 }]);
    expect(judge({ measure: 'bytes', type: 'script', most: 0 })).toMatchObject([{ value: 0 }]);
    expect(judge({ measure: 'bytes', host: 'b.*', most: 0 })).toMatchObject([{ value: 2_100 }]);
    expect(judge({ measure: 'waste', image: 'small', most: 0 })).toMatchObject([
      { value: expect.any(Number) as number, verdict: 'broken' },
    ]);
    expect(judge({ measure: 'waste', image: 'hero', most: 0 })).toMatchObject([{ value: 0 }]);
    expect(judge({ measure: 'sideOverNeed', most: 4 })).toMatchObject([{ value: 5 }]);
    const findings = { measure: 'finding', finding: 'failed-file', most: 0 } as const;
    expect(judge(findings)).toMatchObject([{ value: 1, verdict: 'broken' }]);
    expect(judge({ ...findings, page: '/0' })).toMatchObject([{ value: 0, verdict: 'holds' }]);
  });

  it('set a survey against an earlier one', () => {
    const half = measured([
      { ...plainSketch, bytes: 5_000, pages: [0] },
      { ...plainSketch, bytes: 2_000, pages: [1], thirdParty: true },
    ]);
    const grown = { measure: 'bytes', against: 'autumn', margin: 0.05 } as const;
    expect(judge(grown, half)).toMatchObject([
      { verdict: 'broken', was: { value: 3_700 }, allowed: 3_885 },
    ]);
    expect(judge({ ...grown, margin: 1 }, half)).toMatchObject([{ verdict: 'holds' }]);
    // The same contents are new nowhere.
    const fresh = { measure: 'newImage', against: 'previous', most: 0 } as const;
    expect(judge(fresh, half)).toMatchObject([{ value: 0, verdict: 'holds' }]);
    const fewer = measured([{ ...plainSketch, bytes: 10_000, pages: [0, 1] }]);
    expect(judge(fresh, fewer)).toMatchObject([{ value: 4_000, verdict: 'broken' }]);
    // Before the first survey there was none.
    expect(judge(fresh)).toEqual([]);
  });

  it('that name nothing that exists are told, with what there is', () => {
    const { judgements, unmatched } = judgeSurvey(
      site,
      [
        budgetOf({ measure: 'bytes', page: '/nowhere/*', most: 1 }),
        budgetOf({ measure: 'bytes', view: 'watch', most: 1 }),
        budgetOf({ measure: 'bytes', against: 'autumn', margin: 0 }),
      ],
      () => undefined,
    );
    expect(judgements).toEqual([]);
    expect(unmatched.map(({ setting }) => setting)).toEqual(['page', 'view', 'against']);
    expect(unmatched[0]!.known).toContain('http://a.test/0');
  });

  it('that are suggested hold today', () => {
    const suggested = suggestBudgets(site, [session(1, [900, 910, 920, 930, 940])]);
    expect(suggested.length).toBeGreaterThan(6);
    const { judgements, unmatched } = judgeSurvey(site, suggested, () => undefined);
    expect(judgements.every(({ verdict }) => verdict === 'holds')).toBe(true);
    expect(unmatched).toEqual([]);
    const loads = judge1([session(1, [900, 910, 920, 930, 940])], suggested);
    expect(loads.judgements.map(({ verdict }) => verdict)).toEqual(['holds']);
    expect(new Set(suggested.map(({ name }) => name)).size).toBe(suggested.length);
  });
});

const page = 'http://a.test/0';

function session(id: number, loads: readonly number[], label = `clock-${id}`) {
  return {
    ...{ id, label, page, startedAt: `2026-11-0${id}T00:00:00.000Z` },
    conditions: {
      ...{
        network: builtInNetworks[1]!,
        cpuFactor: 1,
        view: defaultViews[0]!,
        cache: 'cold' as const,
      },
      browser: 'Chromium 1',
    } as const,
    runs: loads.map((load) => ({ markers: { ...noMarkers(), load }, failure: null })),
  };
}

const judge1 = (all: ReturnType<typeof session>[], budgets: readonly Budget[]) =>
  judgeLoads(
    { sessions: all.slice(-1), all, findingsOf: () => [{ id: findingKinds.load[0].id }] },
    budgets,
  );

describe('budgets of loads', () => {
  const limit = budgetOf({ measure: 'load', page: '/0', most: 1_000 });
  const verdictOf = (loads: readonly number[], budget = limit) =>
    judge1([session(1, loads)], [budget]).judgements[0];

  it('are broken only where the interval shows it', () => {
    expect(verdictOf([900, 910, 950, 990, 920])).toMatchObject({ verdict: 'holds' });
    expect(verdictOf([1_100, 1_120, 1_150, 1_130, 1_110])).toMatchObject({
      verdict: 'broken',
      value: 1_120,
    });
    // The median is over the limit, and one of the runs is far below it.
    expect(verdictOf([700, 1_010, 1_020, 1_005, 990])).toMatchObject({ verdict: 'open' });
  });

  it('say so where the runs are too few to tell', () => {
    const judged = verdictOf([1_500, 1_510, 1_490]);
    expect(judged).toMatchObject({ verdict: 'open', interval: null });
    expect(judged!.note).toBe('3 runs are too few to tell; about 5 would');
  });

  it('may be held by the upper end of the interval', () => {
    const upper = budgetOf({ measure: 'load', page: '/0', most: 1_000, hold: 'upper' });
    expect(verdictOf([900, 950, 990, 1_100, 1_200], upper)).toMatchObject({ verdict: 'broken' });
    expect(verdictOf([900, 910, 920, 930, 940], upper)).toMatchObject({ verdict: 'holds' });
  });

  it('set loads against those before under the same conditions', () => {
    const budget = budgetOf({ measure: 'load', against: 'previous', margin: 0.1 });
    const before = session(1, [1_000, 1_010, 990, 1_005, 995]);
    const slower = session(2, [1_300, 1_310, 1_290, 1_305, 1_295]);
    expect(judge1([before, slower], [budget]).judgements).toMatchObject([
      { verdict: 'broken', was: { label: 'clock-1', value: 1_000 }, allowed: 1_100 },
    ]);
    const hardly = session(2, [1_090, 1_080, 1_100, 1_070, 1_085]);
    expect(judge1([before, hardly], [budget]).judgements).toMatchObject([{ verdict: 'holds' }]);
    expect(judge1([slower], [budget]).judgements).toEqual([]);
  });

  it('forbid findings on loads, and say what they name in vain', () => {
    const finding = budgetOf({ measure: 'finding', finding: findingKinds.load[0].id, most: 0 });
    expect(judge1([session(1, [900])], [finding]).judgements).toMatchObject([
      { verdict: 'broken', value: 1 },
    ]);
    const budgets = [
      budgetOf({ measure: 'load', network: 'dsl', most: 1 }),
      budgetOf({ measure: 'load', against: 'never', margin: 0 }),
    ];
    const { unmatched } = judge1([session(1, [900])], budgets);
    expect(unmatched.map(({ setting }) => setting)).toEqual(['network', 'against']);
  });
});
