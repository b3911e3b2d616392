import { splitCredentials } from '../../core/address/access.js';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../../browser/chromium/launch.js';
import { defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import { countedRuns } from '../../core/load/session.js';
import type { Run, Session } from '../../core/load/session.js';
import type { Film } from '../../core/pixels/film.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress, noTrace } from '../progress.js';
import { openStarts } from '../survey/starts.js';
import type { OpenStarts } from '../survey/starts.js';
import { conditionsOf, connectingTime } from './clock-conditions.js';
import type { ClockOptions, ClockOutcome, ClockResult } from './clock-options.js';
import { resultOf } from './clock-result.js';
import { filmLoad } from './film-load.js';
import { knownNeeds } from './known-needs.js';
import { loadInTurn, pageOf, warmUpInTurn } from './load-in-turn.js';
import { LoadProgress } from './load-progress.js';

export type { ClockOptions, ClockOutcome, ClockResult } from './clock-options.js';

/**
 * Loads pages repeatedly with cold caches (and with warm ones, where asked for), in turn, under one set of conditions.
 *
 * @throws PageError when no load of a page succeeded; BrowserError when there is no browser.
 */
export async function clock(
  workspace: Workspace,
  pages: readonly string[],
  options: ClockOptions,
): Promise<ClockOutcome> {
  const { signal, onNotice, memory } = options;
  const split = pages.map(splitCredentials);
  const given = split.flatMap(({ access }) => access ?? []);
  const open = await openStarts(
    split.map(({ address }) => address),
    options,
  );
  try {
    const latency = connectingTime(open, options.network);
    const browser = await launchBrowser(open.reach, { latency, onNotice, memory });
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      return await clockIn(
        browser,
        workspace,
        open,
        { ...options, accesses: [...(options.accesses ?? []), ...given] },
        latency > 0,
      );
    } finally {
      signal?.removeEventListener('abort', stop);
      await browser.close().catch(() => {});
    }
  } finally {
    await open.close();
  }
}

/** A load that takes so many times as long as expected is given up. */
const patienceFactor = 3;

/** Milliseconds of quiet that time to interactive needs. */
const interactiveRest = 5_000;

async function clockIn(
  browser: Browser,
  workspace: Workspace,
  { urls, served, reach }: OpenStarts,
  options: ClockOptions,
  shaped: boolean,
): Promise<ClockOutcome> {
  const { signal, onProgress = noProgress, onTrace = noTrace, runs } = options;
  const conditions = conditionsOf(options, `Chromium ${browser.version()}`, shaped);
  const limits = {
    ...defaultColdLoadLimits,
    quietWindow: options.quietWindow ?? defaultColdLoadLimits.quietWindow,
    ...(options.noInteractive && { rest: 0 }),
  };
  const caches = options.warm ? (['cold', 'warm'] as const) : (['cold'] as const);
  const planned = urls.flatMap((page) =>
    caches.map((cache) => ({ page, conditions: { ...conditions, cache } })),
  );
  const begun = workspace.sessions.begin(options.label, workspace.now(), planned);
  const sessions = urls.map((_, at) => begun.slice(at * caches.length, (at + 1) * caches.length));
  const progress = new LoadProgress({
    network: options.network,
    loadsPerPage: runs + (options.film ? 2 : 1),
    pages: urls,
    rest: (limits.quietWindow + Math.min(limits.rest, interactiveRest)) / 1000,
    onProgress,
  });
  const limitsFor = (page: string) => ({
    ...limits,
    load: options.timeout ?? Math.max(limits.load, patienceFactor * progress.expectedTime(page)),
  });
  const turn = {
    browser,
    conditions,
    limitsFor,
    visitor: options,
    reach,
    sessions,
    runs,
    signal,
    progress,
    onTrace,
  };
  const kept = new Map<Session, Run[]>(begun.map((session) => [session, []]));
  await warmUpInTurn(turn);
  await loadInTurn(workspace, turn, kept);
  const films = new Map<Session, Film>();
  for (const [cold] of options.film ? sessions : []) {
    if (signal?.aborted) break;
    progress.begin(cold!.page);
    const film = await filmLoad(browser, {
      ...pageOf(cold!.page, reach),
      ...{ conditions, limits: limitsFor(cold!.page), visitor: options },
    });
    if (!film) continue;
    films.set(cold!, film);
    workspace.films.add(cold!.id, film);
  }
  progress.end();
  const needs = options.policy ? await knownNeeds(workspace, options.policy) : undefined;
  const needed = needs?.(conditions.view) ?? new Map<string, number>();
  const results: ClockResult[] = [];
  for (const [session, sessionRuns] of kept) {
    const whole = { ...session, runs: sessionRuns };
    const mayLack = signal?.aborted || session.conditions?.cache === 'warm';
    if (mayLack && countedRuns(whole).length === 0) continue;
    const film = films.get(session) ?? null;
    results.push({ ...(await resultOf(workspace, whole, needed, options, served)), film });
  }
  return { results, interrupted: signal?.aborted ?? false };
}
