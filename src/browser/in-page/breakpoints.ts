export interface Breakpoints {
  /** In CSS pixels, in rising order. */
  readonly widths: readonly number[];
  /** Whether all style sheets could be read: those of other origins cannot, and may have breakpoints. */
  readonly whole: boolean;
}

/** The breakpoints of the page's own style sheets and markup. */
export function breakpointsOf(): Breakpoints {
  const found = new Set<number>();
  let whole = true;
  const conditions = [...document.querySelectorAll('source[media], link[media], style[media]')].map(
    (element) => element.getAttribute('media') ?? '',
  );
  const sizes = [...document.querySelectorAll('[sizes]')].map(
    (element) => element.getAttribute('sizes') ?? '',
  );
  for (const text of [...conditions, ...sizes]) collect(text, found);
  for (const sheet of document.styleSheets) whole = walk(sheet, found, 0) && whole;
  return { widths: [...found].sort((a, b) => a - b), whole };
}

/** Style sheets may import and nest without end. */
const maxDepth = 20;

/** @returns whether everything could be read */
function walk(sheet: CSSStyleSheet | CSSGroupingRule, found: Set<number>, depth: number): boolean {
  if (depth > maxDepth) return true;
  let rules: CSSRuleList;
  let whole = true;
  try {
    rules = sheet.cssRules;
  } catch {
    // The grid of the sweep finds what it does.
    return false;
  }
  for (const rule of rules) {
    if (rule instanceof CSSImportRule) {
      collect(rule.media.mediaText, found);
      if (rule.styleSheet) whole = walk(rule.styleSheet, found, depth + 1) && whole;
    } else if (rule instanceof CSSGroupingRule) {
      if (rule instanceof CSSMediaRule) collect(rule.media.mediaText, found);
      whole = walk(rule, found, depth + 1) && whole;
    }
  }
  return whole;
}

/** Every width that a media condition names: `(max-width: 40em)`, `(400px <= width < 700px)`. */
function collect(text: string, found: Set<number>): void {
  if (text.length > 10_000 || !/width/.test(text)) return;
  const rootSize = 16;
  for (const [, number, unit] of text.matchAll(/(\d*\.?\d+)(px|em|rem)\b/g)) {
    const width = Number(number) * (unit === 'px' ? 1 : rootSize);
    if (width > 0 && width < 10_000) found.add(width);
  }
}
