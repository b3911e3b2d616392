import { plainText } from './plain-text.js';

/** Text in a cell of a Markdown table: no ends of cells, no markup, no HTML. */
export function escaped(text: string): string {
  return plainText(text).replace(/[\\|`*_<>[\]]/g, '\\$&');
}
