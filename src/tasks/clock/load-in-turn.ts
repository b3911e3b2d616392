import { existsSync } from 'node:fs';
import { loadavg } from 'node:os';
import type { Browser } from 'playwright-core';
import { coldLoad, defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import type { ColdLoadLimits, LoadPlan } from '../../browser/load/cold-load.js';
import type { VisitorSettings } from '../../browser/chromium/access.js';
import type { Run, Session } from '../../core/load/session.js';
import type { Conditions } from '../../core/visitors/conditions.js';
import { unshaped } from '../../core/visitors/network.js';
import { isThirdParty } from '../../crawl/third-party.js';
import { writeWhole } from '../../store/write-whole.js';
import type { Workspace } from '../../store/workspace.js';
import type { Trace } from '../progress.js';
import type { LoadProgress } from './load-progress.js';
import { pictureFile } from './picture-file.js';

/** The load that does not count need not go quiet. */
const warmUpLimits = { ...defaultColdLoadLimits, settle: 0, rest: 0 };

/** How the loads of a call are made. */
export interface LoadsInTurn {
  readonly browser: Browser;
  readonly conditions: Conditions;
  /** The limits of a load of a page, once it has been loaded. */
  readonly limitsFor: (page: string) => ColdLoadLimits;
  readonly visitor: VisitorSettings;
  /** Which machines pages may lead to; a replay leads to itself. */
  readonly reach?: LoadPlan['reach'];
  /** The sessions of each page: the cold one, and the warm one that follows it. */
  readonly sessions: readonly (readonly Session[])[];
  readonly runs: number;
  readonly signal: AbortSignal | undefined;
  readonly progress: LoadProgress;
  readonly onTrace: Trace;
  /** What sets the loads of a session apart from those of the others. */
  readonly apart?: (session: Session) => Pick<LoadPlan, 'context' | 'observer'>;
}

/** The page of a load, and who is a third party to it. */
export function pageOf(
  url: string,
  reach?: LoadPlan['reach'],
): Pick<LoadPlan, 'url' | 'isThirdParty' | 'reach'> {
  return {
    url,
    isThirdParty: (address) => isThirdParty(address, url),
    ...(reach && { reach }),
  };
}

/** Loads each page once without counting it: that warms what only a first load pays for. */
export async function warmUpInTurn({
  browser,
  conditions,
  limitsFor,
  visitor,
  reach,
  sessions,
  signal,
  progress,
  apart,
}: LoadsInTurn): Promise<void> {
  for (const [session] of sessions) {
    if (signal?.aborted || !session) return;
    const { page } = session;
    progress.begin(page);
    const began = performance.now();
    const [run] = await coldLoad(browser, {
      ...pageOf(page, reach),
      ...apart?.(session),
      ...{ conditions: { ...conditions, network: unshaped }, visitor },
      limits: { ...warmUpLimits, load: limitsFor(page).load },
    });
    progress.expect(page, run.requests, performance.now() - began);
  }
}

/**
 * Loads all pages in turn, so that a drift of the machine affects all of them alike, and keeps each run as soon as it is
 * there.
 *
 * @param kept the runs of each session so far; new ones are added
 */
export async function loadInTurn(
  workspace: Workspace,
  {
    browser,
    conditions,
    limitsFor,
    visitor,
    reach,
    sessions,
    runs,
    signal,
    progress,
    onTrace,
    apart,
  }: LoadsInTurn,
  kept: ReadonlyMap<Session, Run[]>,
): Promise<void> {
  const before = Math.max(0, ...[...kept.values()].map(({ length }) => length));
  for (let position = before; position < before + runs; position++)
    for (const ofPage of sessions) {
      const [cold] = ofPage;
      if (signal?.aborted || !cold) return;
      const { onArrived } = progress.begin(cold.page);
      const [hostLoad = 0] = loadavg();
      const plan = {
        ...pageOf(cold.page, reach),
        ...apart?.(cold),
        ...{ conditions, limits: limitsFor(cold.page), visitor, onArrived },
      };
      const onPicture = keepPicture(workspace, cold);
      const loaded = await coldLoad(browser, { ...plan, onPicture }, ofPage.length - 1);
      // What was cut off by the stop is not a run.
      if (signal?.aborted) return;
      loaded.forEach((run, index) => {
        const session = ofPage[index]!;
        if (run.failure !== null)
          onTrace('a load failed', { page: session.page, failure: run.failure });
        workspace.sessions.addRun(session.id, position, { ...run, hostLoad });
        kept.get(session)!.push({ ...run, hostLoad });
      });
    }
}

/** Keeps two pictures of each cold session's page: what differs between them is no difference to another session. */
function keepPicture(workspace: Workspace, session: Session): LoadPlan['onPicture'] {
  const file = ([1, 2] as const)
    .map((which) => pictureFile(workspace, session, which))
    .find((path) => !existsSync(path));
  return file === undefined ? undefined : (picture) => writeWhole(file, picture);
}
