import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { coldLoad, defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import type { LoadPlan } from '../../browser/load/cold-load.js';
import { PageTape } from '../../browser/load/page-tape.js';
import type { TapedRequest } from '../../browser/load/page-tape.js';
import { hostOf } from '../../core/address/address.js';
import { PageError } from '../../core/base/errors.js';
import type { HarContent } from '../../core/load/har-content.js';
import type { PageRequest } from '../../core/load/request.js';
import { readRecording } from '../../core/trial/read-recording.js';
import type { StoredBody } from '../../core/trial/read-recording.js';
import type { Recording } from '../../core/trial/recording.js';
import { shortestConnects, shortestWaits } from '../../core/trial/shortest-times.js';
import { contentHashOf } from '../../images/hash.js';
import { harOf } from '../../output/json/har.js';
import { writeWhole } from '../../store/write-whole.js';
import type { Workspace } from '../../store/workspace.js';
import { steadyPage } from './steady-page.js';

/** Loads after the one that is recorded, of which only the times of servers and lines are used. */
const timingLoads = 2;
const timingLimits = { ...defaultColdLoadLimits, settle: 0, rest: 0 };

/** Smaller bodies stand in the HAR file itself. */
const maxInline = 64_000;

/** A recording and the HAR file that has it. */
export interface RecordedPage {
  readonly recording: Recording;
  readonly file: string;
  /** Responses whose body is not there, with the reason. */
  readonly missing: readonly { readonly url: string; readonly reason: string }[];
}

/**
 * Loads a page on the line as it is, scrolls it, and keeps every response in a HAR file with contents; large bodies lie
 * beside it by their hash. The times of servers are those of three loads.
 *
 * @param name of the file, without its ending
 * @throws PageError when the page cannot be loaded.
 */
export async function recordPage(
  workspace: Workspace,
  browser: Browser,
  plan: LoadPlan,
  name: string,
  creator: { readonly name: string; readonly version: string },
): Promise<RecordedPage> {
  const small = new Map<string, Buffer>();
  const tape = new PageTape(async (body) => {
    const hash = contentHashOf(body);
    if (body.length <= maxInline) small.set(hash, body);
    await workspace.recordedBodies.keep(hash, body);
    return { hash, bytes: body.length };
  });
  const steady = { ...plan, context: { script: steadyPage() } };
  const [run] = await coldLoad(browser, { ...steady, observer: tape });
  if (run.failure !== null)
    throw new PageError(`${plan.url} could not be recorded: ${run.failure}`, {
      hint: 'check the address; for a host that only this machine knows, see --map-host',
    });
  const taped = tape.requests;
  const whole = { ...run, requests: taped.map(({ request }) => request) };
  const limits = { ...timingLimits, load: plan.limits?.load ?? timingLimits.load };
  const timed: (readonly PageRequest[])[] = [];
  for (let at = 0; at < timingLoads; at++) {
    const [one] = await coldLoad(browser, { ...steady, limits });
    timed.push(one.requests);
  }
  const waits = shortestWaits(whole.requests, timed);
  const connects = shortestConnects([whole.requests, ...timed]);
  const times = whole.requests.map(({ url }, index) => ({
    shortestWait: waits[index] ?? null,
    shortestConnect: connects.get(hostOf(url)) ?? null,
  }));
  const { startedAt } = run;
  const session = {
    ...{ id: 0, label: name, page: plan.url, startedAt, runs: [whole] },
    conditions: plan.conditions,
  };
  const har = harOf(session, whole, creator);
  const entries = har.log.entries.map((entry, index) => ({
    ...withContent(entry, taped[index]!, small),
    ...privateTimes(times[index]!),
  }));
  const file = join(workspace.folder, 'recordings', `${name}.har`);
  const document = { log: { ...har.log, entries } };
  await writeWhole(file, `${JSON.stringify(document, null, 2)}\n`);
  return {
    recording: readRecording(
      plan.url,
      whole,
      taped.map((one, index) => contentOf(one, times[index]!)),
      taped.map(storedBody),
    ),
    file,
    missing: taped.flatMap(({ request, missing }) =>
      missing === null ? [] : [{ url: request.url, reason: missing }],
    ),
  };
}

function storedBody({ body }: TapedRequest): StoredBody | null {
  return body;
}

type Times = Pick<HarContent, 'shortestWait' | 'shortestConnect'>;

function contentOf({ onScroll, body }: TapedRequest, times: Times): HarContent {
  return { text: null, isBase64: false, bodyHash: body?.hash ?? null, onScroll, ...times };
}

/** Fields of our own begin with an underscore, as the format has it (HAR 1.2, custom fields). */
function privateTimes({ shortestWait, shortestConnect }: Times) {
  return {
    ...(shortestWait !== null && { _shortestWait: shortestWait }),
    ...(shortestConnect !== null && { _shortestConnect: shortestConnect }),
  };
}

/** The entry with the body of its response, or the hash of it. */
function withContent(
  entry: Readonly<Record<string, unknown>>,
  { request, body, onScroll }: TapedRequest,
  small: ReadonlyMap<string, Buffer>,
) {
  const response = entry['response'] as Readonly<Record<string, unknown>>;
  const told = response['content'] as Readonly<Record<string, unknown>>;
  const bytes = body ? small.get(body.hash) : undefined;
  const isText = /^text\/|json|xml|javascript/.test(request.mediaType);
  const content = {
    ...told,
    ...(body && { size: body.bytes, _bodyHash: body.hash }),
    ...(bytes &&
      (isText && isUtf8(bytes)
        ? { text: bytes.toString('utf8') }
        : { text: bytes.toString('base64'), encoding: 'base64' })),
  };
  return { ...entry, response: { ...response, content }, ...(onScroll && { _onScroll: true }) };
}

function isUtf8(bytes: Buffer): boolean {
  return Buffer.from(bytes.toString('utf8'), 'utf8').equals(bytes);
}
