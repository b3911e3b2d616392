import { pathOf } from '../../core/address/address.js';
import { isMarker, isOfLoads } from '../../core/budgets/budget.js';
import type { UnmatchedBudget } from '../../core/budgets/judgement.js';
import type { MeasureUnit } from '../../core/budgets/measures/measure.js';
import type { GateRow, GateView } from '../views/gate.js';
import { seriesValue } from './history.js';
import { plainText, shorten } from './plain-text.js';
import { shellWord } from './shell-word.js';
import { count } from './units.js';

/** A value in its unit. */
export function measureWords(value: number, unit: MeasureUnit): string {
  switch (unit) {
    case 'times':
      return `${value.toFixed(2)} ×`;
    case 'requests':
      return (Math.round(value * 10) / 10).toLocaleString('en');
    case 'findings':
      return count(Math.round(value), 'finding');
    default:
      return seriesValue(value, unit);
  }
}

/** What a budget was held against: `/makers/ in phone`, or the average visit of the site. */
export function subjectWords({ subject }: Pick<GateRow, 'subject'>): string {
  const { page, group, view, network } = subject;
  const what =
    page === null ? (group === null ? 'the whole site' : `group ${group}`) : shownPage(page);
  return [
    what,
    ...(view === null ? [] : [`in ${view}`]),
    ...(network === null ? [] : [`over ${network}`]),
  ].join(' ');
}

/** The same, and nothing where the name of the budget says it already. */
export function subjectBeyondName(row: Pick<GateRow, 'subject' | 'budget'>): string {
  const { budget, subject } = row;
  const isSaid = (['page', 'group', 'view'] as const).every(
    (setting) => subject[setting] === null || subject[setting] === budget[setting],
  );
  const isOfSite = subject.page === null && subject.group === null;
  return isSaid && !isOfSite && subject.network === (budget.network ?? null)
    ? ''
    : subjectWords(row);
}

function shownPage(page: string): string {
  return URL.canParse(page) ? pathOf(page) : page;
}

/** Where the budget was broken, in words; empty where that is not known. */
export function culpritWords({ culprit, unit, subject }: GateRow): string {
  if (!culprit) return '';
  const { url, page, view, placement, value } = culprit;
  if (url === page && !placement) return '';
  const where = [
    ...(placement ? [`${placement.kind} ${plainText(placement.selector, 120)}`] : []),
    ...(page === null || page === subject.page ? [] : [`on ${shownPage(page)}`]),
    ...(view === null || view === subject.view ? [] : [`in ${view}`]),
  ];
  const share = unit === 'findings' ? '' : `: ${measureWords(value, unit)}`;
  return `${shorten(url, 100)}${share}${where.length > 0 ? ` (${where.join(', ')})` : ''}`;
}

/** What was measured and what is allowed, in one sentence. */
export function verdictWords(row: GateRow): string {
  const { value, allowed, unit, was, budget, note, interval } = row;
  const than = was
    ? ` (${was.label} had ${measureWords(was.value, unit)}${marginWords(budget.margin ?? 0)})`
    : '';
  const ends = interval
    ? `, 95 % between ${interval.map((end) => measureWords(end, unit)).join(' and ')}`
    : '';
  const told = `${measureWords(value, unit)}${ends}, allowed ${measureWords(allowed, unit)}${than}`;
  return note === null ? told : `${told}; ${note}`;
}

function marginWords(margin: number): string {
  if (margin === 0) return '';
  const percent = Math.round(Math.abs(margin) * 1000) / 10;
  return margin > 0 ? `, and ${percent} % more is allowed` : `, and ${percent} % less is asked for`;
}

/** Since when it has been broken. */
export function sinceWords({ since }: GateRow): string {
  if (!since) return '';
  const day = since.at.slice(0, 10);
  return `${since.atLeast ? 'at least since' : 'since'} ${plainText(since.label, 60)} (${day})`;
}

/** The call that tells more. */
export function commandOf(row: GateRow, { survey }: Pick<GateView, 'survey'>): string {
  const { budget, culprit, subject } = row;
  const of = survey ? ` --survey ${shellWord(survey.label)}` : '';
  if (isMarker(budget.measure) || isOfLoads(budget)) {
    if (budget.from === 'field') return 'zealous-lynx history --field FILE';
    const { page, network, view } = subject;
    return [
      `zealous-lynx clock ${shellWord(page ?? '')}`,
      ...(network === null ? [] : [`--network ${shellWord(network)}`]),
      ...(view === null ? [] : [`--view ${shellWord(view)}`]),
    ].join(' ');
  }
  if (budget.measure === 'finding')
    return `zealous-lynx explain ${shellWord(budget.finding ?? '')}${of}`;
  if (culprit && /^https?:/.test(culprit.url))
    return `zealous-lynx explain ${shellWord(culprit.url)}${of}`;
  if (subject.page !== null) return `zealous-lynx explain ${shellWord(subject.page)}${of}`;
  return `zealous-lynx rank --by page${of}`;
}

const settings: Readonly<Record<UnmatchedBudget['setting'], string>> = {
  page: 'no page matches',
  group: 'no page group matches',
  view: 'no view matches',
  network: 'no loads over the network',
  against: 'no earlier one that is whole is called',
  measure: 'nothing was measured of',
};

/** The most names that a message lists. */
const mostNames = 5;

/** Why a budget says nothing, and what there is instead. */
export function unmatchedWords({ budget, setting, known }: UnmatchedBudget): string {
  const there = known.slice(0, mostNames).map((name) => plainText(name, 80));
  const more = known.length > there.length ? ` and ${known.length - there.length} more` : '';
  const list = there.length > 0 ? `; there are: ${there.join(', ')}${more}` : '';
  return `${settings[setting]} ${plainText(String(budget[setting] ?? ''), 120)}${list}`;
}

/** What a gate comes to, in one line. */
export function gateLine({
  judgements,
  unmatched,
}: Pick<GateView, 'judgements' | 'unmatched'>): string {
  const of = (verdict: GateRow['verdict']) =>
    judgements.filter((row) => row.verdict === verdict).length;
  const [broken, open, holds] = [of('broken'), of('open'), of('holds')];
  const held = `${count(holds, 'budget')} ${holds === 1 ? 'holds' : 'hold'}`;
  return [
    ...(broken > 0 ? [`${count(broken, 'budget')} ${broken === 1 ? 'does' : 'do'} not hold`] : []),
    ...(open > 0 ? [`${count(open, 'budget')} cannot be judged yet`] : []),
    held,
    ...(unmatched.length > 0
      ? [
          `${count(unmatched.length, 'budget')} ${unmatched.length === 1 ? 'names' : 'name'} nothing that exists`,
        ]
      : []),
  ].join(', ');
}
