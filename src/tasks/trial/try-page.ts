import type { Browser } from 'playwright-core';
import { defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import { PageError } from '../../core/base/errors.js';
import { compareSessions } from '../../core/load/comparison.js';
import { modelOf } from '../../core/load/load-model.js';
import { predictChange } from '../../core/load/predict.js';
import type { RequestChanges } from '../../core/load/predict.js';
import { countedRuns, medianRun } from '../../core/load/session.js';
import type { Run, Session } from '../../core/load/session.js';
import type { Film } from '../../core/pixels/film.js';
import { movedPlacements } from '../../core/trial/moved-placements.js';
import { requestChanges } from '../../core/trial/request-changes.js';
import type { Recording } from '../../core/trial/recording.js';
import type { ThrowAwayCertificate } from '../../replay/certificate.js';
import type { Workspace } from '../../store/workspace.js';
import { conditionsOf } from '../clock/clock-conditions.js';
import { comparedPage } from '../clock/compare.js';
import { filmLoad } from '../clock/film-load.js';
import { loadInTurn, pageOf, warmUpInTurn } from '../clock/load-in-turn.js';
import { LoadProgress } from '../clock/load-progress.js';
import { noProgress, noTrace } from '../progress.js';
import { applyFixes } from './apply-fixes.js';
import type { Fix, FixTools } from './fixes/fix.js';
import type { RecordedPage } from './record-page.js';
import { openSide } from './replay-side.js';
import type { ReplaySide } from './replay-side.js';
import type { AppliedFix, TriedPage, TrialOptions } from './trial-options.js';

/** What all pages of a trial share. */
export interface TrialGround {
  readonly workspace: Workspace;
  readonly browser: Browser;
  readonly certificate: ThrowAwayCertificate;
  readonly tools: FixTools;
}

/** A page, and the fixes that are tried on it. */
export interface PageTrial {
  readonly page: RecordedPage;
  readonly fixes: readonly Fix[];
  readonly place: { readonly label: string; readonly index: number; readonly count: number };
}

/** One form of the page: as it is, with all fixes, or with one of them. */
interface Form {
  readonly name: string;
  readonly recording: Recording;
}

/** Markers that decide whether more loads are made. */
const deciding = ['largestContentfulPaint', 'load'] as const;

/**
 * Loads a page as it is and with fixes, in turn.
 *
 * @returns `null` when it was stopped before both sides were loaded
 * @throws PageError when no load of a side succeeded.
 */
export async function tryPage(
  { workspace, browser, certificate, tools }: TrialGround,
  { page: recorded, fixes, place }: PageTrial,
  options: TrialOptions,
): Promise<TriedPage | null> {
  const { recording, file, missing } = recorded;
  const { network, signal, runs, mostRuns } = options;
  const whole = await applyFixes(recording, fixes, tools);
  const forms: Form[] = [
    { name: 'before', recording },
    { name: 'after', recording: whole.recording },
  ];
  const changes = new Map<string, RequestChanges>();
  for (const fix of fixes) {
    const alone = await applyFixes(recording, [fix], tools);
    if (alone.applied[0]!.changed === 0) continue;
    if (fix.isOfBytes) changes.set(fix.name, requestChanges(recording, alone.recording));
    if (options.each && fixes.length > 1)
      forms.push({ name: fix.name, recording: alone.recording });
  }
  const sides: ReplaySide[] = [];
  try {
    for (const form of forms)
      sides.push(await openSide(form.recording, network.latency, certificate, tools.read));
    const conditions = conditionsOf(options, `Chromium ${browser.version()}`, true);
    const caches = options.warm ? (['cold', 'warm'] as const) : (['cold'] as const);
    const sessions = forms.map(({ name }) =>
      workspace.sessions.begin(
        labelOf(place, name),
        new Date().toISOString(),
        caches.map((cache) => ({ page: recording.page, conditions: { ...conditions, cache } })),
      ),
    );
    const sideOf = new Map(sessions.map(([cold], at) => [cold!, sides[at]!]));
    const progress = new LoadProgress({
      network,
      loadsPerPage: (runs + 1) * sides.length + (options.film ? 2 : 0),
      pages: [recording.page],
      rest: defaultColdLoadLimits.quietWindow / 1000,
      onProgress: options.onProgress ?? noProgress,
    });
    const turn = {
      ...{ browser, conditions, visitor: visitorOf(options), sessions, runs, signal, progress },
      onTrace: options.onTrace ?? noTrace,
      apart: (session: Session) => sideOf.get(session)!.plan(),
      limitsFor: () => ({
        ...defaultColdLoadLimits,
        rest: 0,
        load: Math.max(
          options.timeout ?? defaultColdLoadLimits.load,
          3 * progress.expectedTime(recording.page),
        ),
      }),
    };
    const kept = new Map<Session, Run[]>(sessions.flat().map((session) => [session, []]));
    await warmUpInTurn(turn);
    await loadInTurn(workspace, turn, kept);
    const sessionOf = (at: number, cache = 0): Session => {
      const session = sessions[at]![cache]!;
      return { ...session, runs: kept.get(session)! };
    };
    for (;;) {
      const more = runsToSettle(sessionOf(0), sessionOf(1), mostRuns);
      if (signal?.aborted || more <= 0) break;
      await loadInTurn(workspace, { ...turn, runs: more }, kept);
    }
    const films: (Film | null)[] = [];
    for (const at of options.film ? [0, 1] : []) {
      if (signal?.aborted) break;
      progress.begin(recording.page);
      const plan = { ...pageOf(recording.page), ...sides[at]!.plan(), visitor: turn.visitor };
      films.push(await filmLoad(browser, { ...plan, conditions, limits: turn.limitsFor() }));
    }
    progress.end();
    const [before, after] = [sessionOf(0), sessionOf(1)];
    for (const side of [before, after])
      if (countedRuns(side).length === 0) {
        if (signal?.aborted) return null;
        const failure = side.runs[0]?.failure ?? 'no load was made';
        throw new PageError(`${side.label}: ${recording.page} could not be replayed: ${failure}`, {
          hint: 'try it without fixes (--fix none); what is not in the recording is missing there',
        });
      }
    const alone = new Map(
      forms.slice(2).flatMap(({ name }, at) => {
        const session = sessionOf(at + 2);
        return countedRuns(session).length === 0
          ? []
          : [[name, compareSessions(before, session)] as const];
      }),
    );
    const model = modelOf(medianRun(before), network);
    const [was, is] = [sides[0]!.placements.found ?? [], sides[1]!.placements.found ?? []];
    const both = [sides[0]!, sides[1]!];
    return {
      ...(await comparedPage(workspace, before, after)),
      fixes: whole.applied.map((fix): AppliedFix => ({
        ...fix,
        alone: alone.get(fix.name) ?? null,
        predicted: changes.has(fix.name) ? predictChange(model, changes.get(fix.name)!) : null,
      })),
      ...{ recording: file, missing, films },
      unrecorded: distinct(
        both.flatMap(({ source }) => source.unrecorded),
        ({ url }) => url,
      ),
      alike: distinct(
        both.flatMap(({ source }) => source.alike),
        ({ asked }) => asked,
      ),
      ...movedPlacements(was, is),
    };
  } finally {
    await Promise.all(sides.map((side) => side.close()));
  }
}

/** How many more loads of each side are made; 0 for none. */
function runsToSettle(before: Session, after: Session, most: number): number {
  const loaded = Math.max(before.runs.length, after.runs.length);
  if (countedRuns(before).length === 0 || countedRuns(after).length === 0) return 0;
  const { markers } = compareSessions(before, after);
  const needed = deciding
    .map((name) => markers[name].runsToSettle ?? 0)
    .filter((total) => total <= most);
  return Math.max(0, ...needed.map((total) => total - loaded));
}

/** A replay is asked for by nobody who signs in: what the page was sent is in the recording. */
function visitorOf({ userAgent }: TrialOptions) {
  return { userAgent };
}

function labelOf({ label, index, count }: PageTrial['place'], name: string): string {
  return count === 1 ? `${label}-${name}` : `${label}-${index + 1}-${name}`;
}

function distinct<Item>(items: readonly Item[], keyOf: (item: Item) => string): Item[] {
  return [...new Map(items.map((item) => [keyOf(item), item])).values()];
}
