import { widthsIn } from '../../core/slots/breakpoints.js';
import type { Breakpoints } from '../../core/slots/breakpoints.js';
import { rootsOfPlacements } from './placements.js';

/** What a page can tell of its breakpoints. */
export interface FoundBreakpoints extends Breakpoints {
  /** Addresses of the style sheets of other origins, which it cannot read. */
  readonly unread: readonly string[];
}

/** The breakpoints of the page's own style sheets and markup, and of those shadow roots that have placements in them. */
export function breakpointsOf(): FoundBreakpoints {
  const found: Found = { widths: new Set(), unread: new Set(), whole: true };
  for (const root of new Set([document, ...rootsOfPlacements()])) {
    const conditions = [...root.querySelectorAll('source[media], link[media], style[media]')].map(
      (element) => element.getAttribute('media') ?? '',
    );
    const sizes = [...root.querySelectorAll('[sizes]')].map(
      (element) => element.getAttribute('sizes') ?? '',
    );
    for (const text of [...conditions, ...sizes]) collect(text, found);
    for (const sheet of [...root.styleSheets, ...root.adoptedStyleSheets]) walk(sheet, found, 0);
  }
  return { widths: [...found.widths], whole: found.whole, unread: [...found.unread] };
}

interface Found {
  readonly widths: Set<number>;
  readonly unread: Set<string>;
  whole: boolean;
}

/** Style sheets may import and nest without end. */
const maxDepth = 20;

function walk(sheet: CSSStyleSheet | CSSGroupingRule, found: Found, depth: number): void {
  const rules = depth <= maxDepth && rulesOf(sheet);
  if (!rules) {
    if (sheet instanceof CSSStyleSheet && sheet.href) found.unread.add(sheet.href);
    else found.whole = false;
    return;
  }
  for (const rule of rules) {
    if (rule instanceof CSSImportRule) {
      collect(rule.media.mediaText, found);
      if (rule.styleSheet) walk(rule.styleSheet, found, depth + 1);
    } else if (rule instanceof CSSGroupingRule) {
      if (rule instanceof CSSMediaRule) collect(rule.media.mediaText, found);
      if (rule instanceof CSSContainerRule) found.whole = false;
      walk(rule, found, depth + 1);
    }
  }
}

function rulesOf(sheet: CSSStyleSheet | CSSGroupingRule): CSSRuleList | undefined {
  try {
    return sheet.cssRules;
  } catch {
    // It is of another origin.
    return undefined;
  }
}

function collect(condition: string, { widths }: Found): void {
  for (const width of widthsIn(condition)) widths.add(width);
}
