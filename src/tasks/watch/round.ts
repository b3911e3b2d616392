import { LynxError, messageOf } from '../../core/base/errors.js';
import { hostOf } from '../../core/address/address.js';
import type { SurveyFigures } from '../../core/history/figures.js';
import type { RoundView } from '../../output/views/round.js';
import type { Workspace } from '../../store/workspace.js';
import { clock } from '../clock/clock.js';
import { gate } from '../gate/gate.js';
import type { GateResult } from '../gate/gate.js';
import { siteOf } from '../history/site-of.js';
import { siteSessions } from '../history/site-sessions.js';
import { figuresOf } from '../history/survey-numbers.js';
import { thinSurveys } from '../history/thin-surveys.js';
import { deliver } from './deliver.js';
import { downTrouble, failedTrouble, troublesOf, undecidedKeys } from './trouble.js';
import type { Trouble } from './trouble.js';
import { surveyRound } from './watch-survey.js';
import type { WatchOptions } from './watch-options.js';

/** What one round came to, but for when the next is due. */
export type FinishedRound = Omit<RoundView, 'next'>;

/** Surveys, clocks, judges, and tells whoever is to hear of it. What goes wrong is a part of what it returns. */
export async function watchRound(
  workspace: Workspace,
  options: WatchOptions,
): Promise<FinishedRound> {
  const startedAt = new Date().toISOString();
  const id = workspace.rounds.begin(startedAt);
  const label = options.labelOf(startedAt);
  const found = await measure(workspace, options, label);
  const { outcome, troubles } = found;
  const now = new Date().toISOString();
  const { hosts } = found;
  let told = { told: 0, failed: [] as FinishedRound['failedChannels'] };
  if (outcome !== 'stopped') {
    raise(workspace, found, now);
    told = await deliver(workspace, { ...options, hosts });
  }
  const finishedAt = new Date().toISOString();
  const words =
    troubles.length === 0 ? 'nothing wrong' : troubles.map(({ title }) => title).join('; ');
  workspace.rounds.finish(id, finishedAt, outcome, words.slice(0, 2_000));
  const { figures, judged } = found;
  return {
    ...{ hosts, startedAt, finishedAt, outcome, figures, troubles },
    sessions: found.sessions,
    judgements: judged?.judgements ?? [],
    unmatched: judged?.unmatched ?? [],
    ...{ told: told.told, failedChannels: told.failed },
  };
}

interface Found {
  readonly hosts: readonly string[];
  readonly outcome: FinishedRound['outcome'];
  readonly figures: SurveyFigures | null;
  readonly sessions: FinishedRound['sessions'];
  readonly judged: GateResult | null;
  readonly troubles: readonly Trouble[];
}

async function measure(workspace: Workspace, options: WatchOptions, label: string): Promise<Found> {
  const { starts, signal, budgets, field, survey: settings } = options;
  const { policy, groups = [] } = settings;
  const hosts = [...new Set(starts.map((start) => (URL.canParse(start) ? hostOf(start) : start)))];
  const nothing = { hosts, figures: null, sessions: [], judged: null, troubles: [] };
  const name = hosts.join(', ');
  const downs: Trouble[] = [];
  try {
    const { head, problem, interrupted } = await surveyRound(workspace, options, label);
    if (interrupted || signal.aborted) return { ...nothing, outcome: 'stopped' };
    if (!head) return { ...nothing, outcome: 'down', troubles: [downTrouble(name, problem)] };
    const site = siteOf(workspace);
    const summary = site.surveys.find(({ id }) => id === head.id)!;
    const task = { policy, groups, signal, onProgress: options.onProgress };
    const figures = await figuresOf(workspace, summary, task);
    downs.push(...(await clockPages(workspace, options, label)));
    if (signal.aborted) return { ...nothing, outcome: 'stopped' };
    const judged = budgets.length === 0 ? null : await gate(workspace, { ...task, budgets, field });
    if (options.keep !== undefined)
      await thinSurveys(workspace, {
        ...{ ...task, keep: options.keep, dryRun: false },
        needed: budgets.flatMap(({ against }) => against ?? []),
      });
    return {
      ...{ hosts: site.hosts, outcome: 'done', figures, judged },
      sessions: siteSessions(workspace, site).filter((session) => session.label === label),
      troubles: [...downs, ...(judged ? troublesOf(judged) : [])],
    };
  } catch (error) {
    if (signal.aborted) return { ...nothing, outcome: 'stopped' };
    if (!(error instanceof LynxError)) throw error;
    const trouble = failedTrouble(messageOf(error));
    return { ...nothing, outcome: 'failed', troubles: [...downs, trouble] };
  }
}

/** Clocks the pages, each for itself, so that one which cannot be reached does not keep the others from being clocked. */
async function clockPages(
  workspace: Workspace,
  { clock: { pages, options }, signal, onProgress, onTrace, onNotice }: WatchOptions,
  label: string,
): Promise<Trouble[]> {
  const downs: Trouble[] = [];
  for (const page of pages) {
    if (signal.aborted) break;
    try {
      const task = { signal, onProgress, onTrace, onNotice };
      await clock(workspace, [page], { ...options, ...task, label });
    } catch (error) {
      if (!(error instanceof LynxError) || signal.aborted) throw error;
      downs.push(downTrouble(page, messageOf(error)));
    }
  }
  return downs;
}

/** Takes note of what is wrong, and of what is over. */
function raise({ alarms }: Workspace, { outcome, judged, troubles }: Found, now: string): void {
  for (const trouble of troubles) alarms.raise(trouble.key, trouble, now);
  // Of a site that is down nothing else is known: what was wrong with it may last.
  if (outcome !== 'done') return;
  const lasting = [...troubles.map(({ key }) => key), ...(judged ? undecidedKeys(judged) : [])];
  alarms.endOthers(lasting, now);
}
