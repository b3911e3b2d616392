import { medianDifference } from './bootstrap.js';
import { differingConditions } from '../visitors/conditions.js';
import type { Difference } from '../visitors/conditions.js';
import { markerNames } from './markers.js';
import type { MarkerName } from './markers.js';
import { record } from '../base/record.js';
import { requestTypes } from './request.js';
import type { RequestType } from './request.js';
import { samplesOf } from './session.js';
import type { Session } from './session.js';
import { summarise } from '../base/summary.js';
import type { Summary } from '../base/summary.js';

/** One number before and after: medians, ranges and the change of the median. */
export interface Change {
  readonly before: Summary | null;
  readonly after: Summary | null;
  /** After less before, in the number's own unit; `null` when one side is missing. */
  readonly difference: number | null;
  /** The difference in per cent of before; `null` when before is 0 or one side is missing. */
  readonly percent: number | null;
  /**
   * Between these the true difference lies with 95 % confidence; `null` of fewer than three runs on a side, or when
   * one side is missing.
   */
  readonly interval: readonly [low: number, high: number] | null;
  /** The evidence of the runs; `null` if one side is missing or has too few runs to claim anything. */
  readonly verdict: Verdict | null;
  /** Runs on each side that would settle what is `open`; `null` if nothing is, or it would take too many. */
  readonly runsToSettle: number | null;
}

/**
 * `less` and `more`: the runs show it. `same`: every run has the same number. `open`: no difference that these runs
 * can show.
 */
export type Verdict = 'less' | 'more' | 'same' | 'open';

/** Two sessions side by side. */
export interface SessionComparison {
  readonly differingConditions: readonly Difference[];
  readonly markers: Readonly<Record<MarkerName, Change>>;
  readonly requestCount: Change;
  readonly requestsByType: Readonly<Record<RequestType, Change>>;
  readonly bytes: Change;
  readonly bytesByType: Readonly<Record<RequestType, Change>>;
}

/** Sets two sessions against each other, number by number, over the runs that count. */
export function compareSessions(before: Session, after: Session): SessionComparison {
  const one = samplesOf(before);
  const other = samplesOf(after);
  return {
    differingConditions: differingConditions(before.conditions, after.conditions),
    markers: changes(markerNames, one.markers, other.markers),
    requestCount: changeOf(one.requestCount, other.requestCount),
    requestsByType: changes(requestTypes, one.requestsByType, other.requestsByType),
    bytes: changeOf(one.bytes, other.bytes),
    bytesByType: changes(requestTypes, one.bytesByType, other.bytesByType),
  };
}

/** The change of one number, from the value of each run; runs without it are left out. */
export function changeOf(
  before: readonly (number | null)[],
  after: readonly (number | null)[],
): Change {
  const one = before.filter((value) => value !== null);
  const other = after.filter((value) => value !== null);
  const sides = { before: summarise(one), after: summarise(other) };
  if (!sides.before || !sides.after) return { ...sides, ...unknown };
  const { difference, interval, shown, runsToSettle } = medianDifference(one, other);
  const percent = percentOf(difference, sides.before.median);
  const spread = Math.max(...one, ...other) - Math.min(...one, ...other);
  const verdict = (): Verdict | null => {
    if (spread === 0) return 'same';
    if (interval === null) return null;
    if (!shown) return 'open';
    return difference < 0 ? 'less' : 'more';
  };
  return { ...sides, difference, percent, interval, verdict: verdict(), runsToSettle };
}

/** A part of next to nothing tells nothing: beyond so many per cent there is no number. */
const mostPercent = 1e6;

function percentOf(part: number, whole: number): number | null {
  const percent = (part / whole) * 100;
  return Math.abs(percent) <= mostPercent ? percent : null;
}

const unknown = {
  difference: null,
  percent: null,
  interval: null,
  verdict: null,
  runsToSettle: null,
} as const;

function changes<Key extends string>(
  keys: readonly Key[],
  before: Readonly<Record<Key, readonly (number | null)[]>>,
  after: Readonly<Record<Key, readonly (number | null)[]>>,
): Record<Key, Change> {
  return record(keys, (key) => changeOf(before[key], after[key]));
}
