import type { LoadModel, MarkerRule } from './load-model.js';
import { simulate } from './simulate.js';

/** What a change would do to markers, in milliseconds: after less before; `null` where the load does not have one. */
export interface PredictedChange {
  readonly firstContentfulPaint: number | null;
  readonly largestContentfulPaint: number | null;
  readonly load: number | null;
}

/** What becomes of requests, by address: other bytes on the wire, or none at all where it is no longer made. */
export type RequestChanges = ReadonlyMap<string, { readonly bytes: number } | 'gone'>;

const none = { firstContentfulPaint: null, largestContentfulPaint: null, load: null };

/**
 * What changes of some requests would do to the markers of a load, without loading anything. Both the load as it was and the
 * changed one are simulated, so that what the model gets wrong of both does not count.
 */
export function predictChange(model: LoadModel, changes: RequestChanges): PredictedChange {
  if (model.requests.length === 0) return none;
  const [before, after] = [simulate(model), simulate(changed(model, changes))];
  const change = (name: keyof PredictedChange): number | null => {
    const [was, is] = [before[name], after[name]];
    return was === null || is === null || !Number.isFinite(is) ? null : is - was;
  };
  return {
    firstContentfulPaint: change('firstContentfulPaint'),
    largestContentfulPaint: change('largestContentfulPaint'),
    load: change('load'),
  };
}

/** The model with the changes; what depended on a request that is gone is gone as well. */
function changed(model: LoadModel, changes: RequestChanges): LoadModel {
  const places = new Map<number, number>();
  const requests: LoadModel['requests'][number][] = [];
  for (const [at, request] of model.requests.entries()) {
    const change = changes.get(request.url);
    const parent = request.parent === null ? null : places.get(request.parent);
    if (change === 'gone' || parent === undefined) continue;
    places.set(at, requests.length);
    requests.push({ ...request, parent, ...(change && { bytes: change.bytes }) });
  }
  const left = imageBytes(requests) / Math.max(1, imageBytes(model.requests));
  const moved = (rule: MarkerRule | null, isPaint: boolean) =>
    rule && {
      waitsFor: rule.waitsFor.flatMap((at) => places.get(at) ?? []),
      lag: isPaint ? paintLag(rule.lag, left) : rule.lag,
    };
  const { firstContentfulPaint, largestContentfulPaint, load } = model.markers;
  return {
    ...{ network: model.network, requests },
    markers: {
      firstContentfulPaint: moved(firstContentfulPaint, true),
      largestContentfulPaint: moved(largestContentfulPaint, true),
      load: moved(load, false),
    },
  };
}

function imageBytes(requests: LoadModel['requests']): number {
  return requests.reduce((sum, { isImage, bytes }) => sum + (isImage ? bytes : 0), 0);
}

/** Milliseconds that laying a page out and painting it take without any picture: about as much on all pages that were tried. */
const barePaint = 100;

/**
 * How long a paint takes once all that it waits for is there. What is beyond a bare paint is decoding, also of pictures that
 * have come in part, and goes with their bytes.
 *
 * @param left of the bytes of all pictures, the share that is left
 */
function paintLag(lag: number, left: number): number {
  return lag <= barePaint ? lag : barePaint + (lag - barePaint) * Math.min(1, left);
}
