import { keptAddress } from '../../core/address/address.js';
import { groupBy } from '../../core/base/group-by.js';
import type { PageRequest, RequestType } from '../../core/load/request.js';
import type { Channel } from '../chromium/channel.js';
import type { ProbedPlacement } from '../in-page/probed.js';
import type { FoundUse, StyleUse } from '../in-page/sheets.js';
import type { IsolatedWorld } from '../chromium/isolated-world.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import { within } from '../chromium/within.js';

/** The most pictures of the first screen that are returned. */
const maxFirstScreen = 200;
/** Milliseconds that listing the scripts of a page may take. */
const scriptTime = 5_000;

/** Tells whether the page used what it requested; `null` if that cannot be known. */
export type UseOf = (request: Pick<PageRequest, 'type' | 'url'>) => boolean | null;

export interface UsedContent {
  /** Addresses of the pictures in the first screen. */
  readonly firstScreen: readonly string[];
  /** Addresses of lazy images, whether they were asked for or not. */
  readonly lazy: readonly string[];
  readonly useOf: UseOf;
}

/**
 * Which of the files fetched the page used: pictures that an element shows, style sheets with a rule that
 * matches, fonts that are drawn with, scripts that were run. Read last, when timing is over.
 */
export async function usedContent(cdp: Channel, world: IsolatedWorld): Promise<UsedContent> {
  const placements = await world.call<ProbedPlacement[]>('placementsOf');
  const shown = placements.filter((placement) => placement.shown);
  const first = shown.filter(({ aboveFold }) => aboveFold);
  const pictures = new Set(shown.map(({ url }) => keptAddress(url)));
  const { sheets, fonts, whole } = await world.call<StyleUse>('styleUse');
  const scripts = await within(scriptTime, scriptsOf(cdp), () => 'late').catch(() => undefined);
  const [ofSheet, ofFont] = [anyUse(sheets), anyUse(fonts)];
  const use: Readonly<Partial<Record<RequestType, (url: string) => boolean | null>>> = {
    image: (url) => pictures.has(url),
    style: (url) => ofSheet.get(url) ?? null,
    // A font that no sheet names was fetched ahead for nothing, unless there are sheets that cannot be read.
    font: (url) => ofFont.get(url) ?? (whole ? false : null),
    script: (url) => scripts?.has(url) ?? null,
  };
  return {
    firstScreen: [...new Set(first.map(({ url }) => url))].slice(0, maxFirstScreen),
    lazy: placements.filter(({ loading }) => loading === 'lazy').map(({ url }) => keptAddress(url)),
    useOf: ({ type, url }) => use[type]?.(url) ?? null,
  };
}

/** By address; a file that several elements fetch is used if one of them uses it. */
function anyUse(found: readonly FoundUse[]): Map<string, boolean> {
  const uses = new Map<string, boolean>();
  for (const { url, used } of found)
    uses.set(keptAddress(url), used || (uses.get(keptAddress(url)) ?? false));
  return uses;
}

/** Addresses of the scripts that were compiled; the browser's debugger lists all of them. */
async function scriptsOf(cdp: Channel): Promise<ReadonlySet<string>> {
  const urls = new Set<string>();
  const note = ({ url }: { url: string }) => void urls.add(keptAddress(url));
  cdp.on('Debugger.scriptParsed', note);
  await cdp.send('Debugger.enable');
  await cdp.send('Debugger.disable');
  cdp.off('Debugger.scriptParsed', note);
  return urls;
}

/** Tells whether the page used what it requested; what its frames use is not known. */
export function withUse(
  requests: readonly PageRequest[],
  { recorded }: NetworkRecorder,
  useOf: UseOf,
): PageRequest[] {
  const own = new Set(recorded.filter(({ ofPage }) => ofPage).map(({ url }) => url));
  const cameFrom = groupBy(
    requests.filter(({ redirectsTo }) => redirectsTo !== ''),
    ({ redirectsTo }) => keptAddress(redirectsTo),
  );
  /** The page knows a redirected file by the address that it requested. */
  const namesOf = (url: string, seen = new Set<string>()): Set<string> => {
    if (seen.has(url)) return seen;
    seen.add(url);
    for (const before of cameFrom.get(url) ?? []) namesOf(before.url, seen);
    return seen;
  };
  return requests.map((request) => {
    // What was answered with a redirect or not at all has no content.
    if (!own.has(request.url) || request.status >= 300 || request.failure !== null) return request;
    const { type } = request;
    const uses = [...namesOf(request.url)].map((url) => useOf({ type, url }));
    return { ...request, used: uses.find((use) => use) ?? uses[0] ?? null };
  });
}
