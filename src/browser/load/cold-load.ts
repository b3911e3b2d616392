import type { Browser } from 'playwright-core';
import type { Conditions } from '../../core/visitors/conditions.js';
import { messageOf } from '../../core/base/errors.js';
import { lostWords } from '../chromium/navigate.js';
import { noMarkers } from '../../core/load/markers.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Run } from '../../core/load/session.js';
import { markersOf, readAtRest } from './at-rest.js';
import { Camera } from './camera.js';
import type { VisitorSettings } from '../chromium/access.js';
import type { Channel } from '../chromium/channel.js';
import { FreshContext } from './fresh-context.js';
import type { ContextSettings, FreshTab } from './fresh-context.js';
import { IsolatedWorld } from '../chromium/isolated-world.js';
import { loadPage } from '../chromium/load-page.js';
import { forbidsScripts } from '../network/forbids-scripts.js';
import { NetworkRecorder } from '../network/network-recorder.js';
import type { RecordedRequest } from '../network/recorded-request.js';
import { watchOtherProcesses } from '../network/other-processes.js';
import { takePicture } from './page-picture.js';
import type { Reach } from '../../reach/reach.js';
import { untilQuiet } from '../network/until-quiet.js';
import type { QuietLimits } from '../network/until-quiet.js';
import { usedContent, withUse } from './used-content.js';
import { within } from '../chromium/within.js';

export interface ColdLoadLimits extends QuietLimits {
  /** Milliseconds within which the load event must fire. */
  readonly load: number;
  /** Milliseconds more to wait for the quiet that `interactive` needs; 0 skips it. */
  readonly rest: number;
}

export const defaultColdLoadLimits: ColdLoadLimits = {
  load: 120_000,
  quietWindow: 500,
  settle: 10_000,
  rest: 10_000,
};

/** What is loaded, and how. */
export interface LoadPlan {
  readonly url: string;
  readonly conditions: Conditions;
  /** Whether an address belongs to a third party. */
  readonly isThirdParty: (address: string) => boolean;
  readonly limits?: ColdLoadLimits;
  readonly visitor?: VisitorSettings | undefined;
  readonly context?: ContextSettings;
  /** Knows where hosts were found, where the browser sees only its proxy. */
  readonly reach?: Pick<Reach, 'addressOf' | 'lookupTimeOf' | 'refusalOf'>;
  readonly observer?: LoadObserver;
  /** Called with a picture of the whole page (PNG) after everything is measured; without it, none is taken. */
  readonly onPicture?: ((picture: Buffer) => Promise<void>) | undefined;
  /** Called again and again with the bytes that have arrived so far. */
  readonly onArrived?: ((bytes: number) => void) | undefined;
  /** Called with what the page showed while it loaded; filming makes the load slower. */
  readonly onFilm?: ((shots: readonly Shot[]) => void) | undefined;
}

/** Sees a load from its beginning, and the page when everything is measured. */
export interface LoadObserver {
  /** Whether it reads bodies: if not, the browser need not keep them. */
  readonly readsBodies: boolean;
  begin(recorder: NetworkRecorder): void;
  /** Nothing is timed any more; what it does to the page is seen in the picture of it. */
  atRest(page: RestingPage): Promise<void>;
}

/** A page that has been measured. */
export interface RestingPage {
  readonly channel: Channel;
  readonly world: IsolatedWorld;
  readonly recorder: NetworkRecorder;
  readonly limits: QuietLimits;
  /** A recorded request as it is told. */
  readonly told: (request: RecordedRequest) => PageRequest;
}

/** A picture of a load. */
export interface Shot {
  /** Milliseconds since the navigation began; negative for what was there before. */
  readonly at: number;
  /** JPEG. */
  readonly picture: Buffer;
}

/**
 * Loads a page with empty caches, in a context of its own, under the given conditions, and then as many times
 * as wanted with what the caches have kept. A failed load is a run that does not count; it is reported, never
 * thrown.
 *
 * @param repeats loads after the first; none of them is made once one has failed
 * @returns the cold load, and the warm ones behind it
 */
export async function coldLoad(
  browser: Browser,
  order: LoadPlan,
  repeats = 0,
): Promise<[cold: Run, ...warm: Run[]]> {
  const context = await FreshContext.open(
    browser,
    order.conditions.view,
    order.visitor,
    order.context,
  );
  try {
    const runs: [Run, ...Run[]] = [await loadIn(context, order)];
    for (let repeat = 0; repeat < repeats && runs.at(-1)!.failure === null; repeat++)
      runs.push(await loadIn(context, order));
    return runs;
  } finally {
    await context.close().catch(() => {});
  }
}

/** Loads a page in a tab of its own. */
async function loadIn(
  context: FreshContext,
  {
    url,
    conditions,
    isThirdParty,
    limits = defaultColdLoadLimits,
    onPicture,
    onFilm,
    onArrived,
    observer,
    reach,
  }: LoadPlan,
): Promise<Run> {
  const startedAt = new Date().toISOString();
  let tab: FreshTab | undefined;
  try {
    tab = await context.openTab();
    const { channel, applyConditions: dress } = tab;
    const recorder = await NetworkRecorder.attach(channel, observer?.readsBodies ?? false);
    observer?.begin(recorder);
    await shape(channel, conditions);
    await watchOtherProcesses(channel, {
      begun: (process, url) =>
        Promise.allSettled([
          recorder.join(process, url),
          shape(process, conditions),
          dress(process),
        ]),
      ended: (process) => recorder.leave(process),
    });
    const camera = onFilm && (await Camera.start(channel));
    const telling = onArrived && setInterval(() => onArrived(arrivedBytes(recorder)), tellEvery);
    const trouble = await loadPage(channel, url, limits.load).finally(() => clearInterval(telling));
    const status = recorder.document?.status ?? 0;
    const isCutOff = trouble?.isLate && status > 0;
    const stopped = trouble && reach?.refusalOf(recorder.document?.url ?? url);
    const words = stopped ? `leads to ${recorder.document?.url}: ${stopped}` : trouble?.words;
    const failure = status >= 400 ? `returned ${status}` : isCutOff ? null : words;
    if (failure) return failedRun(startedAt, url, status, failure);
    if (!isCutOff) await untilQuiet(channel, recorder, limits);
    const shots = await camera?.stop();
    const isStill = recorder.document !== undefined && forbidsScripts(recorder.document);
    const world = await IsolatedWorld.open(channel, undefined, isStill);
    const finalUrl = await addressOf(channel);
    if (!isSamePath(url, finalUrl) && (await world.call<boolean>('asksForPassword')))
      return failedRun(startedAt, url, status, `ends on a page to sign in: ${finalUrl}`);
    const load = { world, recorder, isThirdParty, reach };
    const { seen, requests, interactive, told } = await readAtRest(
      load,
      isCutOff ? { ...limits, rest: 0 } : limits,
    );
    onFilm?.((shots ?? []).map(({ time, picture }) => ({ at: time - seen.timeOrigin, picture })));
    const { firstScreen, lazy, useOf } = await usedContent(channel, world);
    const asked = new Set(requests.map((request) => request.url));
    const putOff = [...new Set(lazy)].filter((address) => !asked.has(address)).slice(0, maxPutOff);
    await observer?.atRest({ channel, world, recorder, limits, told });
    if (onPicture && !isCutOff)
      await keepPicture(takePicture(channel, world, conditions.view), onPicture);
    return {
      startedAt,
      finalUrl,
      status,
      markers: {
        ...markersOf(seen, requests),
        interactive,
        ...(isCutOff && { lastByte: null }),
      },
      largest: seen.largest,
      firstScreen,
      putOff,
      requests: withUse(requests, recorder, useOf),
      ...(isCutOff && { cutOff: limits.load }),
      failure: null,
    };
  } catch (error) {
    return failedRun(startedAt, url, 0, lostWords(messageOf(error)));
  } finally {
    await tab?.close().catch(() => {});
  }
}

/** Milliseconds between two calls of `onArrived`. */
const tellEvery = 500;

function arrivedBytes({ recorded }: NetworkRecorder): number {
  return recorded.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
}

/** Whether two addresses name one page, though one host may redirect to another, or to https. */
function isSamePath(one: string, other: string): boolean {
  return URL.canParse(other) && new URL(one).pathname === new URL(other).pathname;
}

/** The most lazy images that are kept of those that were not asked for. */
const maxPutOff = 1_000;

/** Milliseconds that drawing a page may take. */
const pictureTime = 20_000;

/** Passes the picture on if there is one in time: a page that cannot be drawn was still timed. */
async function keepPicture(
  taking: Promise<Buffer>,
  onPicture: (picture: Buffer) => Promise<void>,
): Promise<void> {
  taking.catch(() => {});
  const words = () => 'the page was not painted in time';
  const picture = await within(pictureTime, taking, words).catch(() => undefined);
  if (picture) await onPicture(picture);
}

/** Where the page is now. */
async function addressOf(channel: Channel): Promise<string> {
  const { frame } = (await channel.send('Page.getFrameTree')).frameTree;
  return frame.url + (frame.urlFragment ?? '');
}

/** Throttles network and processor as the conditions say. */
async function shape(channel: Channel, { network, cpuFactor }: Conditions): Promise<void> {
  const bytesPerSecond = (kilobits: number) => (kilobits === 0 ? -1 : (kilobits * 1000) / 8);
  if (network.latency > 0 || network.down > 0 || network.up > 0)
    await channel.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: network.latency,
      downloadThroughput: bytesPerSecond(network.down),
      uploadThroughput: bytesPerSecond(network.up),
    });
  if (cpuFactor !== 1) await channel.send('Emulation.setCPUThrottlingRate', { rate: cpuFactor });
}

function failedRun(startedAt: string, url: string, status: number, failure: string): Run {
  return {
    startedAt,
    finalUrl: url,
    status: status || null,
    markers: noMarkers(),
    requests: [],
    failure,
  };
}
