export interface Line {
  /** Where it stands, from 1. */
  readonly number: number;
  /** Without blanks at its ends. */
  readonly text: string;
}

const lineEnd = /\r\n|\r|\n/g;

/** The lines of a text, one at a time, but for empty ones and those that begin with `#`. */
export function* linesIn(text: string): Generator<Line> {
  let number = 1;
  let from = text.startsWith('\uFEFF') ? 1 : 0;
  for (const end of text.matchAll(lineEnd)) {
    const line = text.slice(from, end.index).trim();
    if (line !== '' && !line.startsWith('#')) yield { number, text: line };
    number++;
    from = end.index + end[0].length;
  }
  const line = text.slice(from).trim();
  if (line !== '' && !line.startsWith('#')) yield { number, text: line };
}
