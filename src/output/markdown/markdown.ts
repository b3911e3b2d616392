import type { FindingCode } from '../../core/findings/finding.js';
import { plainText } from '../words/plain-text.js';

/** Text as code, which ends no cell of a table. */
export function asCode(text: string): string {
  return text === '' ? '' : `\`${plainText(text).replaceAll('`', "'").replaceAll('|', '\\|')}\``;
}

/** An address that can be followed, in a table or elsewhere. */
export function asLink(address: string): string {
  return /^https?:[^\s<>|`]+$/.test(address) ? `<${plainText(address)}>` : asCode(address);
}

/** Text in a cell of a Markdown table: no ends of cells, no markup, no HTML. */
export function escaped(text: string): string {
  return plainText(text).replace(/[\\|`*_<>[\]]/g, '\\$&');
}

/** Code in a fence that nothing in it can end. */
export function asCodeBlock({ language, text }: FindingCode): string {
  const longest = Math.max(2, ...[...text.matchAll(/`+/g)].map(([run]) => run.length));
  const fence = '`'.repeat(longest + 1);
  const lines = text.split('\n').map((line) => plainText(line));
  return [fence + language, ...lines, fence].join('\n');
}
