import type { Browser } from 'playwright-core';
import { defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import { compareSessions } from '../../core/load/comparison.js';
import { countedRuns } from '../../core/load/session.js';
import type { Run, Session } from '../../core/load/session.js';
import { decidingMarkers } from '../../core/trial/deciding-markers.js';
import type { Film } from '../../core/pixels/film.js';
import type { ThrowAwayCertificate } from '../../replay/certificate.js';
import type { Workspace } from '../../store/workspace.js';
import { conditionsOf } from '../clock/clock-conditions.js';
import { filmLoad } from '../clock/film-load.js';
import { loadInTurn, pageOf, warmUpInTurn } from '../clock/load-in-turn.js';
import type { LoadsInTurn } from '../clock/load-in-turn.js';
import { LoadProgress } from '../clock/load-progress.js';
import { noProgress, noTrace } from '../progress.js';
import type { FixTools } from './fixes/fix.js';
import { openSide } from './replay-side.js';
import type { ReplaySide } from './replay-side.js';
import type { TrialForm } from './trial-forms.js';
import type { TrialOptions } from './trial-options.js';

/** What all pages of a trial share. */
export interface TrialGround {
  readonly workspace: Workspace;
  readonly browser: Browser;
  readonly certificate: ThrowAwayCertificate;
  readonly tools: FixTools;
}

/** A form of a page that was loaded. */
export interface LoadedForm {
  readonly name: string;
  readonly cold: Session;
  /** `null` where no warm loads were asked for. */
  readonly warm: Session | null;
  readonly side: ReplaySide;
  readonly film: Film | null;
}

/**
 * Replays all forms of a page, and loads them in turn: as often as was asked for, and the first two of them more often
 * where that settles what is not clear yet.
 *
 * @param labelOf the label of the sessions of a form
 */
export async function loadForms(
  { workspace, browser, certificate, tools }: TrialGround,
  forms: readonly TrialForm[],
  labelOf: (form: string) => string,
  options: TrialOptions,
): Promise<LoadedForm[]> {
  const { network, signal, runs, mostRuns } = options;
  const { page } = forms[0]!.recording;
  const sides: ReplaySide[] = [];
  try {
    for (const { recording } of forms)
      sides.push(await openSide(recording, network.latency, certificate, tools.read));
    const conditions = conditionsOf(options, `Chromium ${browser.version()}`, true);
    const caches = options.warm ? (['cold', 'warm'] as const) : (['cold'] as const);
    const sessions = forms.map(({ name }) =>
      workspace.sessions.begin(
        labelOf(name),
        workspace.now(),
        caches.map((cache) => ({ page, conditions: { ...conditions, cache } })),
      ),
    );
    const sideOf = new Map(sessions.map(([cold], at) => [cold!, sides[at]!]));
    const progress = new LoadProgress({
      network,
      loadsPerPage: (runs + 1) * sides.length + (options.film ? 2 : 0),
      pages: [page],
      rest: defaultColdLoadLimits.quietWindow / 1000,
      onProgress: options.onProgress ?? noProgress,
    });
    const least = options.timeout ?? defaultColdLoadLimits.load;
    const turn: LoadsInTurn = {
      ...{ browser, conditions, sessions, runs, signal, progress },
      // What visitors who are signed in were sent is in the recording: nobody has to sign in.
      visitor: { userAgent: options.userAgent },
      onTrace: options.onTrace ?? noTrace,
      apart: (session) => sideOf.get(session)!.plan(),
      limitsFor: () => ({
        ...defaultColdLoadLimits,
        ...{ rest: 0, load: Math.max(least, 3 * progress.expectedTime(page)) },
      }),
    };
    const kept = new Map<Session, Run[]>(sessions.flat().map((session) => [session, []]));
    await warmUpInTurn(turn);
    await loadInTurn(workspace, turn, kept);
    const whole = (session: Session): Session => ({ ...session, runs: kept.get(session)! });
    const both = sessions.slice(0, 2);
    for (;;) {
      const more = runsToSettle(whole(both[0]![0]!), whole(both[1]![0]!), mostRuns);
      if (signal?.aborted || more <= 0) break;
      await loadInTurn(workspace, { ...turn, sessions: both, runs: more }, kept);
    }
    const films: (Film | null)[] = [];
    for (const side of options.film ? sides.slice(0, 2) : []) {
      if (signal?.aborted) break;
      progress.begin(page);
      const plan = { ...pageOf(page), ...side.plan(), visitor: turn.visitor };
      const film = await filmLoad(browser, { ...plan, conditions, limits: turn.limitsFor(page) });
      if (film) workspace.films.add(sessions[films.length]![0]!.id, film);
      films.push(film);
    }
    progress.end();
    return forms.map(({ name }, at) => {
      const [cold, warm] = sessions[at]!;
      const loaded = { name, side: sides[at]!, film: films[at] ?? null };
      return { ...loaded, cold: whole(cold!), warm: warm ? whole(warm) : null };
    });
  } finally {
    await Promise.all(sides.map((side) => side.close()));
  }
}

/** How many more loads of each side are made; 0 for none. */
function runsToSettle(before: Session, after: Session, most: number): number {
  const loaded = Math.max(before.runs.length, after.runs.length);
  if (countedRuns(before).length === 0 || countedRuns(after).length === 0) return 0;
  const { markers } = compareSessions(before, after);
  const needed = decidingMarkers
    .map((name) => markers[name].runsToSettle ?? 0)
    .filter((total) => total <= most);
  return Math.max(0, ...needed.map((total) => total - loaded));
}
