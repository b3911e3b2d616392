/** Says of an address whether it is meant. */
export type AddressMatcher = (address: string) => boolean;

/**
 * A pattern for addresses, in which `*` stands for any characters. One that begins with a scheme is
 * held against the whole address, any other against its path and query.
 */
export function addressMatcher(text: string): AddressMatcher {
  const whole = /^(?:https?|\*):\/\//.test(text);
  const means = textMatcher(text);
  return (address) => {
    if (whole) return means(address);
    const { pathname, search } = new URL(address);
    return means(pathname + search);
  };
}

/** A pattern for any text, in which `*` stands for any characters, and so does the `…` of a name that was shortened when it was printed. */
export function textMatcher(pattern: string): (text: string) => boolean {
  const parts = pattern.split(/[*…]/).map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const expression = new RegExp(`^${parts.join('.*')}$`, 's');
  return (text) => expression.test(text);
}

/** The rule for the query of an address: kept, dropped, or reduced to the named keys. */
export type QueryRule = 'keep' | 'drop' | readonly string[];

/** An address with its query as the rule says; the keys that stay keep their order. */
export function applyQueryRule(address: string, rule: QueryRule): string {
  if (rule === 'keep') return address;
  const url = new URL(address);
  const kept = rule === 'drop' ? [] : [...url.searchParams].filter(([name]) => rule.includes(name));
  url.search = new URLSearchParams(kept).toString();
  return url.href;
}
