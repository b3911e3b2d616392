import { changedModel } from './changed-model.js';
import type { RequestChanges } from './changed-model.js';
import type { LoadModel } from './load-model.js';
import { simulate } from './simulate.js';

/** What a change would do to markers, in milliseconds: after less before; `null` where the load does not have one. */
export interface PredictedChange {
  readonly firstContentfulPaint: number | null;
  readonly largestContentfulPaint: number | null;
  readonly load: number | null;
}

const none = { firstContentfulPaint: null, largestContentfulPaint: null, load: null };

/**
 * What changes of some requests would do to the markers of a load, without loading anything. Both the load as it was and the
 * changed one are simulated, so that what the model gets wrong of both does not count.
 */
export function predictChange(model: LoadModel, changes: RequestChanges): PredictedChange {
  if (model.requests.length === 0) return none;
  const [before, after] = [simulate(model), simulate(changedModel(model, changes))];
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
