import { describeNetwork } from './network.js';
import type { Network } from './network.js';
import { formatSize } from '../base/size.js';
import type { View } from './view.js';

/** All that must be equal for two timings to be compared. */
export interface Conditions {
  readonly network: Network;
  /** The factor by which the processor is slowed down. */
  readonly cpuFactor: number;
  readonly view: Omit<View, 'share'>;
  readonly browser: string;
  /** Warm is the cache after the visitor's own visit just before. */
  readonly cache: 'cold' | 'warm';
  /**
   * The cost of connecting: a round trip of the network each, or what the real line takes; the latter by
   * default.
   */
  readonly connecting?: 'shaped' | 'real';
  /** Name and version of this program; left out by versions that did not say so. */
  readonly tool?: string;
}

/** One condition in which two sessions differ. */
export interface Difference {
  readonly condition: string;
  readonly before: string;
  readonly after: string;
}

/** The conditions as people read them, by name. */
export function describeConditions(conditions: Conditions | null): Record<string, string> {
  if (!conditions) return { conditions: 'unknown' };
  const { view, network, cpuFactor, browser, cache, tool, connecting } = conditions;
  const touch = view.touch ? ', touch' : '';
  return {
    network: describeNetwork(network),
    connecting: connecting === 'shaped' ? 'one round trip each' : 'as on the real network',
    CPU: cpuFactor === 1 ? 'not slowed down' : `slowed down ${cpuFactor} times`,
    view: `${view.name} (${formatSize(view)}, density ${view.density}${touch})`,
    browser,
    cache,
    'measured by': tool ?? 'an unknown version',
  };
}

/** The conditions in one line. */
export function conditionsLine(conditions: Conditions | null): string {
  return Object.entries(describeConditions(conditions))
    .map(([name, words]) => `${name} ${words}`)
    .join(' · ');
}

/** Every condition in which two sessions differ; empty when they may be compared, and where they are not known. */
export function differingConditions(
  before: Conditions | null,
  after: Conditions | null,
): Difference[] {
  if (!before || !after) return [];
  const one = describeConditions(before);
  const other = describeConditions(after);
  return Object.keys(one)
    .filter((condition) => one[condition] !== other[condition])
    .map((condition) => ({ condition, before: one[condition]!, after: other[condition]! }));
}
