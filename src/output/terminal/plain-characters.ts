/** What stands for the characters of drawings and of typesetting where only ASCII can be shown, each of the same width. */
const plain: Readonly<Record<string, string>> = {
  ...all('█▉▊▋▌▍▓▒', '#'),
  ...all('▎▏░', '.'),
  ...all('▁▂', '_'),
  ...all('▃▄', '-'),
  ...all('▅▆', '='),
  ...all('▇', '#'),
  ...all('✓', '+'),
  ...all('✗', 'x'),
  ...all('─━╌╭╮╰╯┌┐└┘┬┴├┤┼', '-'),
  ...all('│┃╎', '|'),
  ...all('▼▾▽', 'v'),
  ...all('▲▴△', '^'),
  ...all('·•●○', '*'),
  ...all('–—−', '-'),
  ...all('‘’', "'"),
  ...all('“”', '"'),
  ...{ '×': 'x', '…': '~', '←': '<', '→': '>', '±': '~', '≤': '<', '≥': '>', '\u00A0': ' ' },
};

function all(characters: string, one: string): Record<string, string> {
  return Object.fromEntries([...characters].map((character) => [character, one]));
}

/** A text in ASCII, for terminals whose locale has no other characters; unknown ones become question marks. */
export function inPlainCharacters(text: string): string {
  // eslint-disable-next-line no-control-regex
  return text.replace(/[^\u0000-\u007F]/gu, (character) => plain[character] ?? '?');
}

/**
 * Whether a terminal shows all characters, by the variables of its locale (POSIX: the first of LC_ALL, LC_CTYPE and LANG
 * that is set); where none is, it is taken for one that does.
 */
export function showsAllCharacters(
  environment: Readonly<Record<string, string | undefined>>,
): boolean {
  const locale = ['LC_ALL', 'LC_CTYPE', 'LANG'].map((name) => environment[name]).find(Boolean);
  return locale === undefined || /utf-?8/i.test(locale);
}
