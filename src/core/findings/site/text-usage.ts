import type { LoadFacts } from '../../survey/load-facts.js';
import type { TextFacts } from '../../survey/resource.js';

/** What visits used of a style sheet or a script, in UTF-16 units. */
export interface TextUsage {
  readonly units: number;
  /** Of rules that no page matched, or functions that no page called. */
  readonly unused: number;
  /** What each page group leaves unused, by its name. */
  readonly unusedBy: ReadonlyMap<string, number>;
  /** Whether a place in it was run, or matched, by any page. */
  isUsed(offset: number): boolean;
}

/** A visit to a page of a group. */
export interface GroupedLoad {
  readonly group: string;
  readonly load: LoadFacts;
}

/**
 * What the visits used of a text together: a rule or a function that one of them used is used.
 *
 * @returns `undefined` where the browser counted nothing
 */
export function usageOf(
  text: TextFacts,
  visits: readonly GroupedLoad[],
  type: 'style' | 'script',
): TextUsage | undefined {
  const { contentHash, units } = text;
  if (!units) return undefined;
  const unusedOf =
    type === 'style' ? unusedRules(text.rules ?? [], contentHash) : uncalled(contentHash);
  const groups = new Map<string, LoadFacts[]>();
  for (const { group, load } of visits) groups.set(group, [...(groups.get(group) ?? []), load]);
  const byGroup = new Map<string, readonly number[]>();
  for (const [group, loads] of groups) {
    const unused = unusedOf(loads);
    if (unused) byGroup.set(group, unused);
  }
  if (byGroup.size === 0) return undefined;
  const all = [...byGroup.values()].reduce(intersection);
  return {
    units,
    unused: lengthOf(all),
    unusedBy: new Map([...byGroup].map(([group, ranges]) => [group, lengthOf(ranges)])),
    isUsed: (offset) => !contains(all, offset),
  };
}

type UnusedOf = (loads: readonly LoadFacts[]) => readonly number[] | undefined;

/** The rules that none of some visits matched. */
function unusedRules(rules: readonly number[], contentHash: string): UnusedOf {
  return (loads) => {
    const used = loads.flatMap(({ styleUse }) =>
      styleUse.filter((use) => use.contentHash === contentHash).map(({ ranges }) => ranges),
    );
    if (used.length === 0) return undefined;
    const unused: number[] = [];
    for (let at = 0; at < rules.length; at += 2) {
      const end = rules[at + 1]!;
      // The browser may begin a rule at the white space before it.
      if (!used.some((ranges) => contains(ranges, end - 1))) unused.push(rules[at]!, end);
    }
    return unused;
  };
}

/** The functions that none of some visits called. */
function uncalled(contentHash: string): UnusedOf {
  return (loads) => {
    const found = loads.flatMap(({ scriptUse }) =>
      scriptUse.filter((use) => use.contentHash === contentHash).map(({ ranges }) => ranges),
    );
    return found.length === 0 ? undefined : found.reduce(intersection);
  };
}

/** What is in both of two lists of ranges in rising order. */
export function intersection(some: readonly number[], others: readonly number[]): number[] {
  const both: number[] = [];
  let [at, to] = [0, 0];
  while (at < some.length && to < others.length) {
    const start = Math.max(some[at]!, others[to]!);
    const end = Math.min(some[at + 1]!, others[to + 1]!);
    if (start < end) both.push(start, end);
    if (some[at + 1]! < others[to + 1]!) at += 2;
    else to += 2;
  }
  return both;
}

/** Whether one of some ranges in rising order holds an offset. */
export function contains(ranges: readonly number[], offset: number): boolean {
  let [from, to] = [0, ranges.length / 2];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (ranges[2 * middle + 1]! <= offset) from = middle + 1;
    else to = middle;
  }
  return from < ranges.length / 2 && ranges[2 * from]! <= offset;
}

function lengthOf(ranges: readonly number[]): number {
  let sum = 0;
  for (let at = 0; at < ranges.length; at += 2) sum += ranges[at + 1]! - ranges[at]!;
  return sum;
}
