import { differingConditions } from './conditions.js';
import type { Difference } from './conditions.js';
import { markerNames } from './markers.js';
import type { MarkerName } from './markers.js';
import { record } from './record.js';
import { requestTypes } from './request.js';
import type { RequestType } from './request.js';
import { summariseSession } from './session.js';
import type { Session } from './session.js';
import type { Summary } from './summary.js';

/** One number before and after: medians and ranges, and what became of the median. */
export interface Change {
  readonly before: Summary | null;
  readonly after: Summary | null;
  /** After less before, in the number's own unit; `null` when one side is missing. */
  readonly difference: number | null;
  /** The difference in per cent of before; `null` when before is 0 or one side is missing. */
  readonly percent: number | null;
  /**
   * Whether the ranges of the runs on the two sides have numbers in common: then the difference may
   * be the noise of the runs. `null` when one side is missing.
   */
  readonly overlap: boolean | null;
}

/** Two sessions side by side. */
export interface SessionComparison {
  readonly differingConditions: readonly Difference[];
  readonly markers: Readonly<Record<MarkerName, Change>>;
  readonly requestCount: Change;
  readonly requestsByType: Readonly<Record<RequestType, Change>>;
  readonly bytes: Change;
  readonly bytesByType: Readonly<Record<RequestType, Change>>;
}

/** Sets the medians of two sessions against each other. */
export function compareSessions(before: Session, after: Session): SessionComparison {
  const one = summariseSession(before);
  const other = summariseSession(after);
  return {
    differingConditions: differingConditions(before.conditions, after.conditions),
    markers: changes(markerNames, one.markers, other.markers),
    requestCount: changeOf(one.requestCount, other.requestCount),
    requestsByType: changes(requestTypes, one.requestsByType, other.requestsByType),
    bytes: changeOf(one.bytes, other.bytes),
    bytesByType: changes(requestTypes, one.bytesByType, other.bytesByType),
  };
}

/** What became of one number. */
export function changeOf(before: Summary | null, after: Summary | null): Change {
  if (!before || !after) return { before, after, difference: null, percent: null, overlap: null };
  const difference = after.median - before.median;
  const percent = before.median === 0 ? null : (difference / before.median) * 100;
  const overlap = before.min <= after.max && after.min <= before.max;
  return { before, after, difference, percent, overlap };
}

function changes<Key extends string>(
  keys: readonly Key[],
  before: Readonly<Record<Key, Summary | null>>,
  after: Readonly<Record<Key, Summary | null>>,
): Record<Key, Change> {
  return record(keys, (key) => changeOf(before[key], after[key]));
}
