import { plainText } from './plain-text.js';

/** A text as one word of a command in a POSIX shell: whoever pastes the line runs what it says, and nothing that a page says. */
export function shellWord(text: string): string {
  const harmless = plainText(text, 4_096);
  return /^[\w@%+=:,./-]+$/.test(harmless) ? harmless : `'${harmless.replaceAll("'", `'\\''`)}'`;
}
