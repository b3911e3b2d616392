import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readDeployment } from '../../demo/deploy.js';
import type { Deployment } from '../../demo/deploy.js';
import { drawUpload, withUpload } from '../../demo/upload.js';
import { budgetName } from '../core/budgets/budget-name.js';
import type { Budget } from '../core/budgets/budget.js';
import { defaultPolicy } from '../core/policy/policy.js';
import { builtInNetworks } from '../core/visitors/network.js';
import { chooseViews, defaultViews } from '../core/visitors/view.js';
import { Reach } from '../reach/reach.js';
import type { RoundView } from '../output/views/round.js';
import type { Workspace } from '../store/workspace.js';
import { demoPictures, serveDemoSite } from './demo-site.js';
import type { TaskOptions } from './progress.js';
import { suggestGate } from './gate/suggest-gate.js';
import { history } from './history/history.js';
import type { History } from './history/history.js';
import { refit } from './refit/refit.js';
import { watch } from './watch/watch.js';

export interface DemoWeeksOptions extends Required<TaskOptions> {
  /** Folder that keeps the site's pictures between calls. */
  readonly cache: string;
  /** Folder that the right-sized files are written to. */
  readonly out: string;
  readonly creator: { readonly name: string; readonly version: string };
}

/** The steps of the story, each told as soon as it is there. */
export interface DemoWeeksSteps {
  /** Told before each week, with what has happened on the site. */
  week(number: number, words: string): void;
  round(round: RoundView): void;
  budgets(budgets: readonly Omit<Budget, 'name'>[]): void;
  /** Told of what the stand-in of a chat received. */
  received(titles: readonly string[]): void;
  history(found: History): void;
}

const views = chooseViews(defaultViews, ['phone', 'laptop']);
const network = builtInNetworks.find(({ name }) => name === 'fast-mobile')!;
/** As many as it takes to show that loads are over a limit. */
const runs = 5;
const label = 'week';

/**
 * Four weeks of the festival's site: as it is, refitted, with a photograph that an editor uploads as the camera made it, and
 * mended. Each week is a round of a watch, with budgets from the second on, and a server that stands in for whoever is told.
 *
 * @returns whether it came to its end; it does not when it was stopped.
 */
export async function demoWeeks(
  workspace: Workspace,
  options: DemoWeeksOptions,
  steps: DemoWeeksSteps,
): Promise<boolean> {
  const { signal, cache, out } = options;
  const listener = await standIn();
  let budgets: Budget[] = [];
  const week = async (number: number, words: string, deployment?: Deployment) => {
    if (signal.aborted) return null;
    steps.week(number, words);
    const site = await serveDemoSite(cache, 0, options, deployment);
    try {
      const { hosts, start } = site;
      await watch(workspace, {
        ...options,
        starts: [start],
        survey: { policy: defaultPolicy, views, scope: { pages: 50 }, tabs: 2, hosts },
        fullEvery: 100,
        clock: {
          pages: [start, `${start}journal/`],
          options: {
            ...{ runs, network, view: views[0]!, cpuFactor: 1, noInteractive: true },
            ...{ policy: defaultPolicy, creator: options.creator, hosts },
          },
        },
        ...{ label, labelOf: () => `${label}-${number}`, budgets },
        channels: budgets.length > 0 ? [{ kind: 'webhook', url: listener.url }] : [],
        every: null,
        onRemark: () => {},
        onRound: (round) => Promise.resolve(steps.round(round)),
      });
      if (budgets.length > 0) steps.received(listener.taken());
      return site;
    } finally {
      await site.close();
    }
  };
  try {
    const before = await week(1, 'the site as it is');
    if (!before || signal.aborted) return false;
    const reach = await Reach.of({ starts: [before.start], hosts: {} });
    const pages = { reach: () => Promise.resolve(reach), accesses: [] };
    await refit(workspace, `${label}-1`, out, defaultPolicy, { ...options, pages });
    if (signal.aborted) return false;
    const refitted = await readDeployment(out, before.start);
    await week(2, 'the refit is deployed', refitted);
    if (signal.aborted) return false;
    const suggested = await suggestGate(workspace, { ...options, policy: defaultPolicy });
    steps.budgets(suggested.budgets);
    budgets = suggested.budgets.map((one) => ({ ...one, name: budgetName(one) }));
    const upload = await drawUpload(await demoPictures(cache, options));
    const asShot = withUpload(refitted, before.start, upload.original);
    await week(3, 'an editor puts a photograph on the journal, as the camera made it', asShot);
    const mended = withUpload(refitted, before.start, upload.mended);
    await week(4, 'somebody has put a right-sized file in its place', mended);
    if (signal.aborted) return false;
    steps.history(
      await history(workspace, { ...options, policy: defaultPolicy, measure: 'bytes' }),
    );
    return true;
  } finally {
    await listener.close();
  }
}

/** A server on loopback that takes alarms, as the chat of a team would. */
async function standIn() {
  const titles: string[] = [];
  const server = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      const { occasion, title } = JSON.parse(Buffer.concat(parts).toString()) as {
        occasion: string;
        title: string;
      };
      titles.push(occasion === 'over' ? `over: ${title}` : title);
      response.writeHead(204).end();
    });
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/alarms`,
    /** What came since the last call. */
    taken: () => titles.splice(0),
    close: async () => {
      server.close();
      server.closeAllConnections();
      await once(server, 'close');
    },
  };
}
