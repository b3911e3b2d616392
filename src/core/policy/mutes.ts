import { addressMatcher, textMatcher } from '../address/address-matcher.js';

/**
 * Findings that are none for a site, and why. In patterns `*` matches any characters; all patterns given must match.
 */
export interface MuteRule {
  /** Id of the kind of finding. */
  readonly finding: string;
  /** Of addresses of files and pages. */
  readonly address?: string | undefined;
  /** Of names of page groups. */
  readonly group?: string | undefined;
  readonly reason: string;
}

/** Where a finding was made. */
export interface FoundAt {
  /** Addresses of the file or page. */
  readonly urls: readonly string[];
  /** The page groups that it is on. */
  readonly groups: readonly string[];
}

/** The mute rules of a policy. */
export class Mutes {
  readonly #rules = new Map<string, ((at: FoundAt) => boolean)[]>();

  constructor(rules: readonly MuteRule[]) {
    for (const rule of rules)
      this.#rules.set(rule.finding, [...(this.#rules.get(rule.finding) ?? []), holderOf(rule)]);
  }

  isMuted(id: string, at: FoundAt): boolean {
    return this.#rules.get(id)?.some((holds) => holds(at)) ?? false;
  }
}

/** What is left of findings when those that a policy mutes are taken away. */
export function unmuted<Found extends { readonly id: string }>(
  found: readonly Found[],
  rules: readonly MuteRule[],
  at: () => FoundAt,
): readonly Found[] {
  const meant = rules.filter(({ finding }) => found.some(({ id }) => id === finding));
  if (meant.length === 0) return found;
  const mutes = new Mutes(meant);
  const place = at();
  return found.filter(({ id }) => !mutes.isMuted(id, place));
}

function holderOf({ address, group }: MuteRule): (at: FoundAt) => boolean {
  const addressHolds = address === undefined ? () => true : addressMatcher(address);
  const groupHolds = textMatcher(group ?? '*');
  return ({ urls, groups }) =>
    (address === undefined || urls.some((url) => URL.canParse(url) && addressHolds(url))) &&
    (group === undefined || (groups.length > 0 && groups.every(groupHolds)));
}
