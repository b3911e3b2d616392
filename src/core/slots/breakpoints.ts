/** The widths of the window at which a page may change by leaps. */
export interface Breakpoints {
  /** In CSS pixels, each once. */
  readonly widths: readonly number[];
  /**
   * Whether there are no others: what cannot be read may have any, and container queries ask for the width of a container,
   * which may have any of the window's.
   */
  readonly whole: boolean;
}

/** Longer conditions are not read. */
const maxCondition = 10_000;

/** Pixels of an `em` in a media query where nobody has set another size of text (Media Queries Level 4, section 1.3). */
const em = 16;

/** Every width that a media condition names: `(max-width: 40em)`, `(400px <= width < 700px)`. */
export function widthsIn(condition: string): number[] {
  if (condition.length > maxCondition || !/width/.test(condition)) return [];
  return [...condition.matchAll(/(\d*\.?\d+)(px|em|rem)\b/g)]
    .map(([, number, unit]) => Number(number) * (unit === 'px' ? 1 : em))
    .filter((width) => width > 0 && width < 10_000);
}

/** The breakpoints of a style sheet by its text. What it imports is another one. */
export function breakpointsIn(css: string): Breakpoints {
  const widths = new Set<number>();
  let whole = true;
  for (const [, name, condition] of css.matchAll(/@(media|container|import)\b([^{;]*)/gi)) {
    if (name!.toLowerCase() !== 'media') whole = false;
    else for (const width of widthsIn(condition!)) widths.add(width);
  }
  return { widths: [...widths], whole };
}

export function joined(all: readonly Breakpoints[]): Breakpoints {
  return {
    widths: [...new Set(all.flatMap(({ widths }) => widths))],
    whole: all.every(({ whole }) => whole),
  };
}
