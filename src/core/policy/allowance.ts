import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import type { Placement } from '../slots/placement.js';

/**
 * What a policy allows chosen pictures beyond their need, and why. In patterns `*` matches any characters; all
 * patterns given must match.
 */
export interface PolicyRule {
  /** Of the survey's selectors. */
  readonly selector?: string | undefined;
  /** Of addresses of images. */
  readonly address?: string | undefined;
  /** Of names of page groups. */
  readonly group?: string | undefined;
  /** The factor on the need, for pictures that visitors can zoom. */
  readonly zoom?: number | undefined;
  /** The need is at least so many pixels wide. */
  readonly minimum?: number | undefined;
  /** The file is right as it is. */
  readonly exempt?: boolean | undefined;
  readonly reason: string;
}

/** What holds for one placement. */
export interface Allowance {
  readonly zoom: number;
  readonly minimum: number;
  readonly exempt: boolean;
  readonly rules: readonly PolicyRule[];
}

export const nothingAllowed: Allowance = { zoom: 1, minimum: 0, exempt: false, rules: [] };

/** The rules of a policy; remembers which of them ever matched. */
export class Allowances {
  readonly #rules: readonly {
    readonly rule: PolicyRule;
    readonly holds: (placement: Placed) => boolean;
  }[];
  readonly #groups: ReadonlyMap<string, string | null>;
  readonly #matched = new Set<PolicyRule>();

  /** @param groups names of page groups, by the addresses of pages */
  constructor(rules: readonly PolicyRule[], groups: ReadonlyMap<string, string | null>) {
    this.#groups = groups;
    this.#rules = rules.map((rule) => ({ rule, holds: this.#holderOf(rule) }));
  }

  of(placement: Placed): Allowance {
    if (this.#rules.length === 0) return nothingAllowed;
    const rules = this.#rules.filter(({ holds }) => holds(placement)).map(({ rule }) => rule);
    if (rules.length === 0) return nothingAllowed;
    for (const rule of rules) this.#matched.add(rule);
    return {
      zoom: Math.max(1, ...rules.map(({ zoom = 1 }) => zoom)),
      minimum: Math.max(0, ...rules.map(({ minimum = 0 }) => minimum)),
      exempt: rules.some(({ exempt = false }) => exempt),
      rules,
    };
  }

  /** Rules that matched no placement: mistyped, or no longer needed. */
  get unmatched(): PolicyRule[] {
    return this.#rules.map(({ rule }) => rule).filter((rule) => !this.#matched.has(rule));
  }

  #holderOf({ selector, address, group }: PolicyRule): (placement: Placed) => boolean {
    const selectorHolds = textMatcher(selector ?? '*');
    const groupHolds = textMatcher(group ?? '*');
    const addressHolds = addressMatcher(address ?? '*://*');
    return (placement) =>
      selectorHolds(placement.selector) &&
      groupHolds(this.#groups.get(placement.page) ?? '') &&
      (address === undefined || (URL.canParse(placement.url) && addressHolds(placement.url)));
  }
}

type Placed = Pick<Placement, 'page' | 'selector' | 'url'>;
