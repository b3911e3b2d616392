/** The breakpoints of the page's own style sheets and markup, in CSS pixels. */
export function breakpointsOf(): number[] {
  const found = new Set<number>();
  const conditions = [...document.querySelectorAll('source[media], link[media], style[media]')].map(
    (element) => element.getAttribute('media') ?? '',
  );
  const sizes = [...document.querySelectorAll('[sizes]')].map(
    (element) => element.getAttribute('sizes') ?? '',
  );
  for (const text of [...conditions, ...sizes]) collect(text, found);
  for (const sheet of document.styleSheets) walk(sheet, found, 0);
  return [...found].sort((a, b) => a - b);
}

/** Style sheets may import and nest without end. */
const maxDepth = 20;

function walk(sheet: CSSStyleSheet | CSSGroupingRule, found: Set<number>, depth: number): void {
  if (depth > maxDepth) return;
  let rules: CSSRuleList;
  try {
    rules = sheet.cssRules;
  } catch {
    // The sheet of another origin may not be read; the grid of the sweep finds what it does.
    return;
  }
  for (const rule of rules) {
    if (rule instanceof CSSImportRule) {
      collect(rule.media.mediaText, found);
      if (rule.styleSheet) walk(rule.styleSheet, found, depth + 1);
    } else if (rule instanceof CSSGroupingRule) {
      if (rule instanceof CSSMediaRule) collect(rule.media.mediaText, found);
      walk(rule, found, depth + 1);
    }
  }
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
