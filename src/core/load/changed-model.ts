import { barePaint, lowRank } from './load-model.js';
import type { LoadModel, MarkerRule, ModelRequest } from './load-model.js';
import { simulate } from './simulate.js';

/** What becomes of a request; what is left out stays as it was. */
export interface RequestChange {
  /** On the wire, headers included. */
  readonly bytes?: number;
  readonly rank?: number;
  /** The document names it at its beginning. */
  readonly isKnownAtOnce?: true;
  /** It no longer blocks rendering, and waits behind what does. */
  readonly isDeferred?: true;
  /** It is only made once the page is laid out. */
  readonly isLazy?: true;
  /** Its connection carries any number of requests at a time. */
  readonly isMultiplexed?: true;
}

/** What becomes of requests, by address; `gone` where one is no longer made. */
export type RequestChanges = ReadonlyMap<string, RequestChange | 'gone'>;

/** A model with changes of requests; what depended on a request that is gone is gone as well. */
export function changedModel(model: LoadModel, changes: RequestChanges): LoadModel {
  const changeOf = (at: number): RequestChange | 'gone' =>
    changes.get(model.requests[at]!.url) ?? {};
  const stays = staying(model, changeOf);
  const places = new Map(stays.map((at, place) => [at, place]));
  const isDeferred = (at: number) => {
    const change = changeOf(at);
    return change !== 'gone' && change.isDeferred === true;
  };
  const layout = lastBlocking(model, stays, (at) => !isDeferred(at));
  const document = stays.findIndex((at) => model.requests[at]!.isDocument);
  const requests = stays.map((at): ModelRequest => {
    const request = model.requests[at]!;
    const { bytes, rank, ...is } = changeOf(at) as RequestChange;
    const parent = request.parent === null ? null : places.get(request.parent)!;
    return {
      ...{ ...request, parent },
      ...(bytes !== undefined && { bytes }),
      ...(rank !== undefined && { rank }),
      ...(is.isKnownAtOnce && document >= 0 && knownFrom(document, 'first-byte')),
      ...(is.isDeferred && { blocksRendering: false, rank: lowRank }),
      ...(is.isMultiplexed && { isMultiplexed: true }),
      ...(is.isLazy && { rank: lowRank }),
      ...(is.isLazy && layout !== null && knownFrom(places.get(layout)!, 'end')),
    };
  });
  const left = imageBytes(requests) / Math.max(1, imageBytes(model.requests));
  const moved = (rule: MarkerRule | null, isMeant = (_at: number) => true) =>
    rule && {
      ...rule,
      waitsFor: rule.waitsFor.filter(isMeant).flatMap((at) => places.get(at) ?? []),
    };
  const { firstContentfulPaint, largestContentfulPaint, domContentLoaded, load } = model.markers;
  const paint = moved(firstContentfulPaint, (at) => !isDeferred(at));
  const largest = largestContentfulPaint;
  return {
    ...{ network: model.network, requests },
    markers: {
      firstContentfulPaint: paint && { ...paint, lag: paintLag(paint.lag, left) },
      largestContentfulPaint: largest && {
        ...largest,
        picture: largest.picture === null ? null : (places.get(largest.picture) ?? null),
        lagInTime: paintLag(largest.lagInTime, left),
        lagLate: paintLag(largest.lagLate, left),
      },
      domContentLoaded: moved(domContentLoaded),
      load: moved(load),
    },
  };
}

/** The requests that are still made, by their places. */
function staying(
  { requests }: LoadModel,
  changeOf: (at: number) => RequestChange | 'gone',
): number[] {
  const stays = new Set<number>();
  for (const [at, { parent }] of requests.entries())
    if (changeOf(at) !== 'gone' && (parent === null || stays.has(parent))) stays.add(at);
  return [...stays];
}

/** The request that rendering waits for longest; `null` where it waits for none. */
function lastBlocking(
  model: LoadModel,
  stays: readonly number[],
  isMeant: (at: number) => boolean,
): number | null {
  const blocking = stays.filter((at) => model.requests[at]!.blocksRendering && isMeant(at));
  if (blocking.length < 2) return blocking[0] ?? null;
  const { ends } = simulate(model);
  return blocking.reduce((last, at) => (ends[at]! > ends[last]! ? at : last));
}

function knownFrom(
  parent: number,
  knownAt: ModelRequest['knownAt'],
): Pick<ModelRequest, 'parent' | 'knownAt' | 'lag'> {
  return { parent, knownAt, lag: 0 };
}

function imageBytes(requests: LoadModel['requests']): number {
  return requests.reduce((sum, { isImage, bytes }) => sum + (isImage ? bytes : 0), 0);
}

/**
 * How long a paint takes once all that it waits for is there. What is beyond a bare paint is decoding, also of pictures that
 * have come in part, and goes with their bytes.
 *
 * @param left of the bytes of all pictures, the share that is left
 */
function paintLag(lag: number, left: number): number {
  return lag <= barePaint ? lag : barePaint + (lag - barePaint) * Math.min(1, left);
}
