import { existsSync } from 'node:fs';
import { loadavg } from 'node:os';
import { join } from 'node:path';
import { coldLoad, defaultColdLoadLimits } from '../browser/cold-load.js';
import { launchBrowser } from '../browser/launch.js';
import type { HostMap } from '../browser/host-map.js';
import { isServedHere, slowConnections } from '../browser/slow-connections.js';
import type { SlowConnections } from '../browser/slow-connections.js';
import type { Conditions } from '../core/visitors/conditions.js';
import { PageError } from '../core/base/errors.js';
import type { Film } from '../core/pixels/film.js';
import { loadFindingsOf } from '../core/findings/load/index.js';
import type { LoadFinding } from '../core/findings/load/load-case.js';
import { unshaped } from '../core/visitors/network.js';
import type { Network } from '../core/visitors/network.js';
import type { Policy } from '../core/policy/policy.js';
import { countedRuns, medianRun, summariseSession } from '../core/load/session.js';
import type { Run, Session, SessionSummary } from '../core/load/session.js';
import type { View } from '../core/visitors/view.js';
import { isThirdParty } from '../crawl/third-party.js';
import { harOf } from '../output/json/har.js';
import { writeWhole } from '../store/write-whole.js';
import type { Workspace } from '../store/workspace.js';
import { filmLoad } from './film-load.js';
import { knownNeeds } from './known-needs.js';
import { pictureFile } from './picture-file.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { openStarts } from './starts.js';
import type { OpenStarts } from './starts.js';

/** The load that does not count need not go quiet. */
const warmUpLimits = { ...defaultColdLoadLimits, settle: 0, rest: 0 };

export interface ClockOptions extends TaskOptions {
  readonly label?: string | undefined;
  readonly runs: number;
  readonly network: Network;
  readonly cpuFactor: number;
  readonly view: View;
  /** Milliseconds without traffic after which the network counts as quiet [500]. */
  readonly quietWindow?: number;
  /** Does not wait for the rest that `interactive` asks for. */
  readonly noInteractive?: boolean;
  /** Loads each page once more in the end, and films that load. */
  readonly film?: boolean;
  /** Loads each page a second time with what its cold load has left in the cache. */
  readonly warm?: boolean;
  readonly hosts?: HostMap;
  /** By which images of a survey are judged; left out, nothing is said of what they should weigh. */
  readonly policy?: Policy;
  /** Name and version of the program, for the HAR file. */
  readonly creator: { readonly name: string; readonly version: string };
}

/** One page's session with what it comes to. */
export interface ClockResult {
  readonly session: Session;
  readonly summary: SessionSummary;
  readonly medianRun: Run;
  /** What stands out in the median run. */
  readonly findings: readonly LoadFinding[];
  /** How the page came to look as it does; `null` where it was not filmed. */
  readonly film: Film | null;
  /** Where the HAR file of the median run lies. */
  readonly harFile: string;
}

export interface ClockOutcome {
  readonly results: readonly ClockResult[];
  readonly interrupted: boolean;
}

/**
 * Loads pages again and again with cold caches (and warm ones, where wanted), in turn, under one set of conditions. One load of each
 * comes first that does not count: it warms what only a first load pays for.
 *
 * @throws PageError when no load of a page succeeded; BrowserError when there is no browser.
 */
export async function clock(
  workspace: Workspace,
  pages: readonly string[],
  options: ClockOptions,
): Promise<ClockOutcome> {
  const { signal, onProgress = noProgress, runs, hosts = {} } = options;
  const open = await openStarts(pages, hosts);
  try {
    const connections = await connectionsFor(open, options.network);
    const browser = await launchBrowser(open.hosts, { connections });
    const stop = () => void browser.close();
    signal?.addEventListener('abort', stop, { once: true });
    try {
      const conditions = conditionsOf(
        options,
        `Chromium ${browser.version()}`,
        connections !== undefined,
      );
      const limits = {
        ...defaultColdLoadLimits,
        quietWindow: options.quietWindow ?? defaultColdLoadLimits.quietWindow,
        ...(options.noInteractive && { rest: 0 }),
      };
      const orderOf = (url: string) => ({
        url,
        isThirdParty: (address: string) => isThirdParty(address, url),
      });
      const caches = options.warm ? (['cold', 'warm'] as const) : (['cold'] as const);
      const planned = open.urls.flatMap((page) =>
        caches.map((cache) => ({ page, conditions: { ...conditions, cache } })),
      );
      const begun = workspace.sessions.begin(options.label, new Date().toISOString(), planned);
      // What one page is loaded for: its cold session, and the warm one that follows on it.
      const sessions = open.urls.map((_, at) =>
        begun.slice(at * caches.length, (at + 1) * caches.length),
      );
      const total = sessions.length * (runs + (options.film ? 2 : 1));
      let done = 0;
      const kept = new Map<Session, Run[]>(begun.map((session) => [session, []]));
      for (let position = -1; position < runs && !signal?.aborted; position++)
        for (const ofPage of sessions) {
          const { page } = ofPage[0]!;
          onProgress({ stage: 'loads', done: done++, total, doing: page });
          const warming = position < 0;
          const [hostLoad = 0] = loadavg();
          const order = orderOf(page);
          const file = pictureFile(workspace, ofPage[0]!);
          const onPicture = existsSync(file)
            ? undefined
            : (picture: Buffer) => writeWhole(file, picture);
          const loaded = warming
            ? await coldLoad(browser, {
                ...order,
                conditions: { ...conditions, network: unshaped },
                limits: warmUpLimits,
              })
            : await coldLoad(
                browser,
                { ...order, conditions, limits, onPicture },
                ofPage.length - 1,
              );
          if (signal?.aborted) break;
          if (warming) continue;
          loaded.forEach((run, at) => {
            const session = ofPage[at]!;
            workspace.sessions.addRun(session.id, position, { ...run, hostLoad });
            kept.get(session)!.push({ ...run, hostLoad });
          });
        }
      const films = new Map<Session, Film>();
      for (const [session] of options.film ? sessions : []) {
        if (signal?.aborted) break;
        onProgress({ stage: 'loads', done: done++, total, doing: session!.page });
        const film = await filmLoad(browser, { ...orderOf(session!.page), conditions, limits });
        if (film) films.set(session!, film);
      }
      onProgress({ stage: 'loads', done, total, doing: '' });
      const needed = options.policy ? await knownNeeds(workspace, options.policy) : new Map();
      const results: ClockResult[] = [];
      for (const [session, sessionRuns] of kept) {
        const whole = { ...session, runs: sessionRuns };
        const mayLack = signal?.aborted || session.conditions?.cache === 'warm';
        if (mayLack && countedRuns(whole).length === 0) continue;
        const film = films.get(session) ?? null;
        results.push({ ...(await resultOf(workspace, whole, needed, options)), film });
      }
      return { results, interrupted: signal?.aborted ?? false };
    } finally {
      signal?.removeEventListener('abort', stop);
      await browser.close().catch(() => {});
      await connections?.close();
    }
  } finally {
    await open.close();
  }
}

/** Where all pages come from this machine, connecting is made to cost what it would on a real line. */
async function connectionsFor(
  { urls, hosts }: OpenStarts,
  { latency }: Network,
): Promise<SlowConnections | undefined> {
  const here = latency > 0 && urls.every((url) => isServedHere(url, hosts));
  return here ? slowConnections(latency, hosts) : undefined;
}

function conditionsOf(
  { network, cpuFactor, view, creator }: ClockOptions,
  browser: string,
  shaped: boolean,
): Conditions {
  const { name, width, height, density, touch } = view;
  const seen = { name, width, height, density, touch };
  return {
    network,
    cpuFactor,
    view: seen,
    browser,
    cache: 'cold',
    connecting: shaped ? 'shaped' : 'real',
    tool: `${creator.name} ${creator.version}`,
  };
}

async function resultOf(
  workspace: Workspace,
  session: Session,
  needed: ReadonlyMap<string, number>,
  { creator, network }: ClockOptions,
): Promise<Omit<ClockResult, 'film'>> {
  if (countedRuns(session).length === 0)
    throw new PageError(`${session.page} could not be loaded: ${session.runs[0]?.failure}`, {
      hint: 'check the address; for a host that only this machine knows, see --map-host',
    });
  const run = medianRun(session);
  const harFile = join(workspace.folder, 'har', `session-${session.id}.har`);
  await writeWhole(harFile, `${JSON.stringify(harOf(session, run, creator), null, 2)}\n`);
  const findings = loadFindingsOf(run, network, (url) => needed.get(url));
  return { session, summary: summariseSession(session), medianRun: run, findings, harFile };
}
