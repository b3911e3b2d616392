import type { Budget } from '../../core/budgets/budget.js';
import { isMarker, isOfLoads, previous } from '../../core/budgets/budget.js';
import { judgeField } from '../../core/budgets/judge-field.js';
import { judgeLoads } from '../../core/budgets/judge-loads.js';
import { judgeSurvey } from '../../core/budgets/judge-survey.js';
import { inOrder, keyOf } from '../../core/budgets/judgement.js';
import type { Judged, Judgement } from '../../core/budgets/judgement.js';
import type { MeasuredSurvey } from '../../core/budgets/measured-survey.js';
import { loadFindingsOf } from '../../core/findings/load/index.js';
import { NotFoundError } from '../../core/base/errors.js';
import { conditionsKey } from '../../core/load/marked-session.js';
import type { MarkedSession } from '../../core/load/marked-session.js';
import { medianRun } from '../../core/load/session.js';
import type { SurveySummary } from '../../core/survey/survey.js';
import { readField } from '../../crawl/field-file.js';
import type { GateRow, GateView, Since } from '../../output/views/gate.js';
import type { Workspace } from '../../store/workspace.js';
import { siteOf } from '../history/site-of.js';
import type { SurveyedSite } from '../history/site-of.js';
import { siteSessions } from '../history/site-sessions.js';
import type { NumbersOptions } from '../history/survey-numbers.js';
import { measureSurvey } from './measure-survey.js';

export interface GateOptions extends NumbersOptions {
  readonly budgets: readonly Budget[];
  /** Label of the survey; the newest of the site if it is left out. */
  readonly survey?: string | undefined;
  /** Label of the session; the newest of each page if it is left out. */
  readonly session?: string | undefined;
  readonly site?: string | undefined;
  /** File of what visitors measured. */
  readonly field?: string | undefined;
}

/** A site held against its budgets. */
export type GateResult = Omit<GateView, 'top'>;

/** The most earlier surveys that are looked at to say since when. */
const mostBack = 30;

/**
 * Holds the newest survey of a site, and the newest loads of its pages, against budgets.
 *
 * @throws NotFoundError when there is nothing to judge.
 */
export async function gate(workspace: Workspace, options: GateOptions): Promise<GateResult> {
  const { budgets } = options;
  const measured = new Measured(workspace, options);
  const { site, survey } = measured;
  const judged: Judged[] = [];
  if (survey && budgets.some(({ measure }) => !isMarker(measure)))
    judged.push(await measured.judge(survey, budgets));
  const loads = judgedSessions(workspace, site, options);
  judged.push(judgeLoads(loads, budgets));
  if (options.field !== undefined) judged.push(judgeField(readField(options.field), budgets));
  const judgements: GateRow[] = [];
  for (const judgement of inOrder(judged.flatMap((one) => one.judgements)))
    judgements.push({
      ...judgement,
      since:
        judgement.verdict !== 'broken'
          ? null
          : isMarker(judgement.budget.measure) || isOfLoads(judgement.budget)
            ? sinceOfLoads(judgement, loads)
            : await measured.since(judgement),
    });
  return {
    hosts: site.hosts,
    survey: survey ?? null,
    leftOut: site.leftOut.flatMap(({ id, label }) => (id > (survey?.id ?? 0) ? label : [])),
    sessions: [...new Set(loads.sessions.map(({ label }) => label))],
    judgements,
    unmatched: judged.flatMap(({ unmatched }) => unmatched),
  };
}

/** The surveys of a site as budgets see them, each worked out once. */
class Measured {
  readonly site: SurveyedSite;
  /** The one that is judged. */
  readonly survey: SurveySummary | undefined;
  readonly #workspace: Workspace;
  readonly #options: GateOptions;
  readonly #known = new Map<number, Promise<MeasuredSurvey>>();

  constructor(workspace: Workspace, options: GateOptions) {
    this.#workspace = workspace;
    this.#options = options;
    this.site = siteOf(workspace, options.site);
    const { surveys } = this.site;
    this.survey =
      options.survey === undefined
        ? surveys.at(-1)
        : surveys.findLast(({ label }) => label === options.survey);
    if (this.survey) return;
    const [left] = this.site.leftOut;
    throw new NotFoundError(
      options.survey === undefined
        ? 'there is no survey that says anything'
        : `there is no survey ${options.survey} that came to its end`,
      {
        hint: left
          ? `${left.label} was interrupted, or reached no page`
          : `there are: ${surveys.map(({ label }) => label).join(', ')}`,
      },
    );
  }

  #measure(survey: SurveySummary): Promise<MeasuredSurvey> {
    const known = this.#known.get(survey.id);
    if (known) return known;
    const made = measureSurvey(this.#workspace, survey, this.#options);
    this.#known.set(survey.id, made);
    return made;
  }

  /** The whole surveys before one, the newest first. */
  #before({ id }: SurveySummary): SurveySummary[] {
    return this.site.surveys.filter((one) => one.id < id && one.thinnedAt === null).reverse();
  }

  async judge(survey: SurveySummary, budgets: readonly Budget[]): Promise<Judged> {
    const earlier = new Map<string, MeasuredSurvey>();
    for (const label of new Set(budgets.flatMap(({ against }) => against ?? []))) {
      const before = this.#before(survey);
      const found = label === previous ? before[0] : before.find((one) => one.label === label);
      if (found) earlier.set(label, await this.#measure(found));
    }
    const judged = judgeSurvey(await this.#measure(survey), budgets, (label) => earlier.get(label));
    const known = this.#before(survey).map(({ label }) => label);
    return {
      ...judged,
      unmatched: judged.unmatched.map((one) =>
        one.setting === 'against' ? { ...one, known } : one,
      ),
    };
  }

  /** The first of the surveys before this one, without a break, in which a budget was broken. */
  async since(judgement: Judgement): Promise<Since> {
    const survey = this.survey!;
    let since = survey;
    const before = this.#before(survey);
    // What is set against the survey before is broken by what is new in this one.
    const looked = judgement.budget.against === previous ? [] : before.slice(0, mostBack);
    for (const one of looked) {
      const { judgements } = await this.judge(one, [judgement.budget]);
      const then = judgements.find((other) => keyOf(other) === keyOf(judgement));
      if (then?.verdict !== 'broken')
        return { label: since.label, at: since.startedAt, atLeast: false };
      since = one;
    }
    // Where none is known in which it held, it may have been broken before.
    return { label: since.label, at: since.startedAt, atLeast: looked.length > 0 };
  }
}

interface Loads {
  readonly sessions: readonly MarkedSession[];
  readonly all: readonly MarkedSession[];
  readonly findingsOf: (session: MarkedSession) => readonly { readonly id: string }[];
}

function judgedSessions(workspace: Workspace, site: SurveyedSite, options: GateOptions): Loads {
  const all = siteSessions(workspace, site);
  const meant = all.filter(({ label }) => (options.session ?? label) === label);
  if (options.session !== undefined && meant.length === 0)
    throw new NotFoundError(`there is no session ${options.session} of this site`, {
      hint: `there are: ${[...new Set(all.map(({ label }) => label))].join(', ')}`,
    });
  const newest = new Map(meant.map((session) => [conditionsKey(session), session]));
  return {
    sessions: [...newest.values()],
    all,
    findingsOf: ({ id, label }) => {
      const whole = workspace.sessions.find(label).find((session) => session.id === id);
      if (!whole?.conditions) return [];
      return loadFindingsOf(medianRun(whole), whole.conditions.network);
    },
  };
}

/** The first of the sessions before, without a break, in which a budget was broken. */
function sinceOfLoads(judgement: Judgement, { sessions, all, findingsOf }: Loads): Since | null {
  const { page, view, network } = judgement.subject;
  const of = (session: MarkedSession) =>
    session.page === page &&
    (session.conditions?.view.name ?? null) === view &&
    (session.conditions?.network.name ?? null) === network;
  const judged = sessions.find(of);
  if (!judged) return null;
  const key = conditionsKey(judged);
  const before = all
    .filter((session) => session.id < judged.id && conditionsKey(session) === key)
    .reverse();
  let since = judged;
  for (const session of judgement.budget.against === previous ? [] : before) {
    const { judgements } = judgeLoads({ sessions: [session], all, findingsOf }, [judgement.budget]);
    if (judgements[0]?.verdict !== 'broken')
      return { label: since.label, at: since.startedAt, atLeast: false };
    since = session;
  }
  return { label: since.label, at: since.startedAt, atLeast: since !== judged };
}
