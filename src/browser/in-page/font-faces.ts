import { resolveAddress } from './resolve.js';

/** A `@font-face` rule as a style sheet of the page has it. */
export interface DeclaredFace {
  readonly family: string;
  readonly weight: string;
  readonly style: string;
  readonly urls: readonly string[];
  readonly display: string;
  readonly isPart: boolean;
  readonly used: boolean;
}

const maxFaces = 500;
const maxAddress = 4_096;
const maxName = 200;
const everything = 'U+0-10FFFF';

/** All that the style sheets of the document declare and that the page may read; a font that is drawn with is used. */
export function fontFaces(): DeclaredFace[] {
  if (document.fonts.size === 0) return [];
  const faces: DeclaredFace[] = [];
  const walk = (rules: CSSRuleList, seen: readonly CSSStyleSheet[]) => {
    for (const rule of rules) {
      if (faces.length >= maxFaces) return;
      if (rule instanceof CSSFontFaceRule) faces.push(faceOf(rule));
      else if (rule instanceof CSSImportRule) sheet(rule.styleSheet, seen);
      else if (rule instanceof CSSGroupingRule) walk(rule.cssRules, seen);
    }
  };
  // A sheet can import itself.
  const sheet = (one: CSSStyleSheet | null, seen: readonly CSSStyleSheet[]) => {
    if (!one || seen.includes(one)) return;
    try {
      walk(one.cssRules, [...seen, one]);
    } catch {
      // It is of another origin, and may not be read.
    }
  };
  for (const one of document.styleSheets) sheet(one, []);
  return faces;
}

/** What a rule declares, and whether the page draws with it. */
export function faceOf({ style, parentStyleSheet }: CSSFontFaceRule): DeclaredFace {
  const said = (name: string, usual: string) => style.getPropertyValue(name).trim() || usual;
  const family = bare(said('font-family', ''));
  const [weight, slant] = [said('font-weight', 'normal'), said('font-style', 'normal')];
  const range = said('unicode-range', everything).toUpperCase();
  const used = [...document.fonts].some(
    (face) =>
      face.status === 'loaded' &&
      bare(face.family) === family &&
      face.style === slant &&
      face.weight === weight &&
      face.unicodeRange.toUpperCase() === range,
  );
  const base = parentStyleSheet?.href ?? document.baseURI;
  const urls: string[] = [];
  for (const [, quoted, plain] of said('src', '').matchAll(
    /url\(\s*(?:["']([^"']*)["']|([^)"']*?))\s*\)/g,
  )) {
    const url = quoted ?? plain ?? '';
    if (url.length <= maxAddress && URL.canParse(url, base)) urls.push(new URL(url, base).href);
  }
  const display = said('font-display', 'auto');
  return {
    ...{ family: family.slice(0, maxName), weight, style: slant, urls, display, used },
    isPart: range !== everything,
  };
}

export function bare(family: string): string {
  return family.trim().replace(/^["']|["']$/g, '');
}

/** Whether a face is loaded from an address. */
export function isFrom({ urls }: DeclaredFace, address: string): boolean {
  const url = resolveAddress(address);
  return url !== undefined && urls.includes(url);
}
