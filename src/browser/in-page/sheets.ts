import { faceOf } from './font-faces.js';

/** Whether any part of a style sheet or font that the page fetched took effect. */
export interface FoundUse {
  readonly url: string;
  readonly used: boolean;
}

export interface StyleUse {
  readonly sheets: readonly FoundUse[];
  readonly fonts: readonly FoundUse[];
  /** Whether every style sheet could be read: those of other origins cannot, and may name fonts. */
  readonly whole: boolean;
}

/** The most rules that are examined. */
const maxRules = 20_000;

/**
 * Which style sheets have a rule that some element matches in this window, and which of their fonts are used.
 * A style sheet is used if one that it imports is. The page cannot notice the reading.
 */
export function styleUse(): StyleUse {
  const walk = new Walk();
  for (const sheet of document.styleSheets) walk.sheet(sheet);
  return { sheets: walk.sheets, fonts: walk.fonts, whole: walk.whole };
}

class Walk {
  readonly sheets: FoundUse[] = [];
  readonly fonts: FoundUse[] = [];
  whole = true;
  #left = maxRules;

  sheet(sheet: CSSStyleSheet, seen: readonly CSSStyleSheet[] = []): boolean {
    let rules: CSSRuleList;
    try {
      rules = sheet.cssRules;
    } catch {
      this.whole = false;
      return false;
    }
    const applies = !sheet.disabled && mediaHolds(sheet.media);
    // A sheet can import itself.
    const used = this.#rules(rules, [...seen, sheet]) && applies;
    if (sheet.href) this.sheets.push({ url: sheet.href, used });
    return used;
  }

  #rules(rules: CSSRuleList, seen: readonly CSSStyleSheet[]): boolean {
    let used = false;
    for (const rule of rules) {
      if (this.#left-- <= 0) {
        this.whole = false;
        return true;
      }
      // All of them are walked, whatever was found: there may be fonts among them.
      used = this.#rule(rule, seen) || used;
    }
    return used;
  }

  #rule(rule: CSSRule, seen: readonly CSSStyleSheet[]): boolean {
    if (rule instanceof CSSImportRule)
      return rule.styleSheet !== null && !seen.includes(rule.styleSheet)
        ? this.sheet(rule.styleSheet, seen)
        : false;
    if (rule instanceof CSSFontFaceRule) return this.#font(rule);
    if (rule instanceof CSSStyleRule) return matches(rule.selectorText);
    if (rule instanceof CSSMediaRule && !mediaHolds(rule.media)) {
      this.#rules(rule.cssRules, seen);
      return false;
    }
    if (rule instanceof CSSGroupingRule) return this.#rules(rule.cssRules, seen);
    return false;
  }

  #font(rule: CSSFontFaceRule): boolean {
    const { urls, used } = faceOf(rule);
    for (const url of urls) this.fonts.push({ url, used });
    return used;
  }
}

function mediaHolds({ mediaText }: MediaList): boolean {
  return mediaText === '' || matchMedia(mediaText).matches;
}

/** States that come and go, and pseudo-elements. */
const passing =
  /::?(?:before|after|first-line|first-letter|marker|placeholder|selection|backdrop)|:(?:hover|active|focus(?:-visible|-within)?|visited|target|checked|disabled|enabled|invalid|valid)\b/g;

function matches(selector: string): boolean {
  try {
    return selector
      .split(',')
      .some((one) => document.querySelector(one.replace(passing, '').trim() || '*') !== null);
  } catch {
    // What cannot be asked for (a comma within brackets, a state that is not known here) may match.
    return true;
  }
}
