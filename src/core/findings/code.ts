import { asMarkup } from '../base/markup-text.js';
import type { FindingCode } from './finding.js';

/** An element or several, one a line. */
export function htmlCode(...lines: readonly string[]): FindingCode {
  return { language: 'html', text: lines.join('\n') };
}

/** A rule of a style sheet, one part a line. */
export function cssCode(...lines: readonly string[]): FindingCode {
  return { language: 'css', text: lines.join('\n') };
}

/** An attribute with an address as it is written in a document of any page. */
export function addressAttribute(name: 'href' | 'src', url: string): string {
  return `${name}="${asMarkup(url)}"`;
}

/** A string of CSS (CSS Syntax Level 3, 4.3.5), quotes included. */
export function cssString(text: string): string {
  const escaped = text.replace(
    /["\\\p{Cc}]/gu,
    (sign) => `\\${sign.codePointAt(0)!.toString(16)} `,
  );
  return `"${escaped}"`;
}
