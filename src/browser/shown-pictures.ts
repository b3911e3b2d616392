import { keptAddress } from '../core/address.js';
import type { PageRequest } from '../core/request.js';
import type { ProbedPlacement } from './in-page/probed.js';
import type { IsolatedWorld } from './isolated-world.js';
import type { NetworkRecorder } from './network-recorder.js';

/** Pictures in the first screen beyond these are not told. */
const maxFirstScreen = 200;

/** The addresses of the pictures that are shown, and in the first screen; read last, when nothing is timed any more. */
export async function picturesOf(
  world: IsolatedWorld,
): Promise<{ shown: ReadonlySet<string>; firstScreen: string[] }> {
  const placements = await world.call<ProbedPlacement[]>('placementsOf');
  const shown = placements.filter((placement) => placement.shown);
  const first = shown.filter(({ aboveFold }) => aboveFold);
  return {
    shown: new Set(shown.map(({ url }) => keptAddress(url))),
    firstScreen: [...new Set(first.map(({ url }) => url))].slice(0, maxFirstScreen),
  };
}

/** Tells of the page's own pictures whether they are shown; what frames show is not known. */
export function withUse(
  requests: readonly PageRequest[],
  { recorded }: NetworkRecorder,
  shown: ReadonlySet<string>,
): PageRequest[] {
  const own = new Set(recorded.filter(({ ofPage }) => ofPage).map(({ url }) => url));
  const isKnown = ({ type, url }: PageRequest) => type === 'image' && own.has(url);
  return requests.map((request) =>
    isKnown(request) ? { ...request, used: shown.has(request.url) } : request,
  );
}
