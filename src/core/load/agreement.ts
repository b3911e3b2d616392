import type { Change } from './comparison.js';

type Measured = Pick<Change, 'difference' | 'interval'>;

/** Two measured changes that are no more than this part of one of them apart are the same for every purpose. */
const sameChange = 0.1;

/**
 * Whether two measurements of one change agree: the 95 % interval of what they are apart has 0 in it, or they are at most a
 * tenth of the second apart.
 *
 * The interval comes from those of both: G. Y. Zou, A. Donner, "Construction of confidence limits about effect measures: a
 * general approach", Statistics in Medicine 27, 2008 (limits of a difference).
 *
 * @returns `null` where one of them was not measured, or from too few loads for an interval
 */
export function changesAgree(tried: Measured, measured: Measured): boolean | null {
  if (tried.difference === null || measured.difference === null) return null;
  const apart = tried.difference - measured.difference;
  if (Math.abs(apart) <= sameChange * Math.abs(measured.difference)) return true;
  if (tried.interval === null || measured.interval === null) return null;
  const [low, high] = [tried.difference - tried.interval[0], tried.interval[1] - tried.difference];
  const below = measured.difference - measured.interval[0];
  const above = measured.interval[1] - measured.difference;
  return apart - Math.hypot(low, above) <= 0 && apart + Math.hypot(high, below) >= 0;
}
