/** A selector as the document alone can answer it: without states (`:hover`) and pseudo-elements. */
export interface SelectorTest {
  readonly text: string;
  /** What an element must be called that it selects: `.class`, `#id` and tag, in lower case. */
  readonly names: readonly string[];
}

/** A rule of a style sheet; `selectors` is `null` where the document does not tell whether it is used. */
export interface StyleRule {
  /** In UTF-16 units from the beginning of the style sheet. */
  readonly start: number;
  readonly end: number;
  readonly selectors: readonly SelectorTest[] | null;
}

/** What elements of a page are called: `.class`, `#id` and tag, in lower case. */
export interface SeenNames {
  readonly now: readonly string[];
  /** What some were called before, and none is now. */
  readonly before: readonly string[];
}

/** The rules of some style sheets, as far as names tell which of them a page uses. */
export interface RuleUse {
  /** Those that are used whatever the document answers. */
  readonly used: ReadonlySet<StyleRule>;
  /** Selectors to ask the document for, and the rules that each of them makes used ones. */
  readonly asked: ReadonlyMap<string, readonly StyleRule[]>;
}

/**
 * Sorts rules by the names that a page has: one without an element of its names is not used; one that needs a name which was there
 * only for a while (a class set on scrolling) was used then; of all others, the document must be asked.
 */
export function ruleUse(rules: Iterable<StyleRule>, { now, before }: SeenNames): RuleUse {
  const names = new Set(now);
  const passed = new Set(before);
  const used = new Set<StyleRule>();
  const asked = new Map<string, StyleRule[]>();
  for (const rule of rules) {
    const possible = rule.selectors?.filter((test) =>
      test.names.every((name) => names.has(name) || passed.has(name)),
    );
    if (!possible || possible.some((test) => test.names.some((name) => passed.has(name))))
      used.add(rule);
    else
      for (const { text } of possible) {
        const rulesOf = asked.get(text);
        if (rulesOf) rulesOf.push(rule);
        else asked.set(text, [rule]);
      }
  }
  return { used, asked };
}
