/** One candidate of a `srcset`. */
export interface Candidate {
  readonly url: string;
  /** The width it declares, in pixels; `null` if it has a density or nothing. */
  readonly width: number | null;
  /** Pixels of the file to a CSS pixel; 1 where it names none, `null` where it has a width. */
  readonly density: number | null;
}

/** Longer texts are not read to their end. */
const maxLength = 100_000;

/**
 * The candidates of a `srcset` as the HTML standard parses it: addresses up to the next white space, without commas at
 * their ends, and descriptors up to the next comma.
 */
export function parseSrcset(text: string): Candidate[] {
  const candidates: Candidate[] = [];
  const pattern = /[\s,]*([^\s,]\S*)([^,]*),?/gy;
  const head = text.slice(0, maxLength);
  for (let match = pattern.exec(head); match; match = pattern.exec(head)) {
    const [whole, address = '', descriptor = ''] = match;
    const bare = withoutCommasBehind(address);
    // A comma right behind the address ends the candidate: what follows is the next one.
    if (bare !== address) pattern.lastIndex = match.index + whole.indexOf(address) + address.length;
    const told = bare === address ? descriptor : '';
    const width = /^\s*(\d{1,9})w\s*$/.exec(told)?.[1];
    const density = /^\s*(\d{1,9}(?:\.\d*)?|\.\d+)x\s*$/.exec(told)?.[1];
    candidates.push(
      width === undefined
        ? { url: bare, width: null, density: Number(density ?? 1) || 1 }
        : { url: bare, width: Number(width), density: null },
    );
  }
  return candidates;
}

/** A regular expression would search for the end again from each of many commas. */
function withoutCommasBehind(text: string): string {
  let end = text.length;
  while (text[end - 1] === ',') end--;
  return text.slice(0, end);
}

/** The widths that a `srcset` of widths offers, ascending, each once; none where it has densities. */
export function offeredWidths(candidates: readonly Candidate[]): number[] {
  const widths = candidates.flatMap(({ width }) => (width === null ? [] : [width]));
  return [...new Set(widths)].sort((a, b) => a - b);
}

/** The width that a browser takes from those offered: the least that is enough, or else the largest. */
export function chosenWidth(widths: readonly number[], needed: number): number | undefined {
  return widths.find((width) => width >= needed) ?? widths.at(-1);
}
