import picocolors from 'picocolors';
import Table from 'cli-table3';
import stringWidth from 'string-width';
import wrapAnsi from 'wrap-ansi';
import { shorten } from '../words/plain-text.js';

/** The width of the drawing, and whether it has colours. */
export interface Screen {
  /** Columns. */
  readonly width: number;
  readonly colour: boolean;
}

/** The colours of the terminal; all of them do nothing where colour is not wanted. */
export function paletteFor({ colour }: Pick<Screen, 'colour'>) {
  return picocolors.createColors(colour);
}
export type Palette = ReturnType<typeof paletteFor>;

export interface Column {
  readonly title: string;
  /** Whether a screen that is too narrow for all columns may do without it. */
  readonly spare?: boolean;
  /** The characters in a line that it does with before spare columns are left out; without it, it is cut last. */
  readonly least?: number;
  /** Whether it holds sentences, which are broken into lines rather than cut. */
  readonly wraps?: boolean;
  readonly align?: 'left' | 'right';
}

/**
 * A table without rules: a dim heading, two spaces between columns. On a narrow screen columns are made as narrow as they may
 * be, then spare ones are left out, the last first, and then what is left is made narrower still.
 */
export function table(
  screen: Screen,
  all: readonly Column[],
  allRows: readonly (readonly string[])[],
): string {
  const { dim } = paletteFor(screen);
  const { columns, rows } = fitted(all, allRows, screen.width);
  const blank = Object.fromEntries(
    [
      ...['top', 'top-mid', 'top-left', 'top-right', 'bottom', 'bottom-mid', 'bottom-left'],
      ...['bottom-right', 'left', 'left-mid', 'mid', 'mid-mid', 'right', 'right-mid'],
    ].map((name) => [name, '']),
  );
  const drawn = new Table({
    chars: { ...blank, middle: '  ' },
    style: { head: [], border: [], 'padding-left': 0, 'padding-right': 0 },
    colAligns: columns.map(({ align = 'left' }) => align),
    head: columns.map(({ title }) => dim(title)),
  });
  for (const row of rows) drawn.push([...row]);
  return drawn
    .toString()
    .split('\n')
    .map((line) => line.trimEnd())
    .join('\n');
}

/** Columns between two others. */
const gap = 2;

/** The fewest characters that a text is cut to, or that sentences are broken into. */
const [leastText, leastSentence] = [8, 12];

function fitted(all: readonly Column[], allRows: readonly (readonly string[])[], width: number) {
  const kept = all.map((column, at) => ({
    ...column,
    at,
    wide: Math.max(stringWidth(column.title), ...allRows.map((row) => stringWidth(row[at] ?? ''))),
  }));
  const excess = (widthOf = (column: (typeof kept)[number]) => column.wide) =>
    kept.reduce((sum, column) => sum + widthOf(column), gap * (kept.length - 1)) - width;
  while (excess(({ wide, least = wide }) => Math.min(wide, least)) > 0) {
    const spare = kept.findLastIndex((column) => column.spare);
    if (spare < 0) break;
    kept.splice(spare, 1);
  }
  const shrink = (column: (typeof kept)[number] | undefined, least: number) => {
    if (!column) return;
    const over = Math.max(0, excess());
    column.wide = Math.max(Math.min(column.wide, least), column.wide - over);
  };
  const yielding = kept.filter(({ least }) => least !== undefined).toReversed();
  for (const column of yielding) shrink(column, column.least!);
  for (const column of yielding) if (column.wraps) shrink(column, leastSentence);
  shrink(kept.filter(({ wraps }) => !wraps).toSorted((a, b) => b.wide - a.wide)[0], leastText);
  const cellOf = (row: readonly string[], { at, wraps, wide }: (typeof kept)[number]) => {
    const text = row[at] ?? '';
    if (wraps) return inLines(text, wide);
    return stringWidth(text) > wide && !text.includes('\u001B') ? shorten(text, wide) : text;
  };
  return {
    columns: kept,
    rows: allRows.map((row) => kept.map((column) => cellOf(row, column))),
  };
}

const eighths = ['', '▏', '▎', '▍', '▌', '▋', '▊', '▉'];

/** A bar of `share` (0 to 1) of `width` columns, to an eighth of a column. */
export function bar(share: number, width: number): string {
  const total = Math.round(Math.min(1, Math.max(0, share)) * width * 8);
  return '█'.repeat(Math.floor(total / 8)) + eighths[total % 8]!;
}

/** Two blocks of text side by side where the screen is wide enough, else one below the other. */
export function beside(left: string, right: string, { width }: Screen, gap = 6): string {
  const lefts = left.split('\n');
  const rights = right.split('\n');
  const widest = Math.max(...lefts.map((line) => stringWidth(line)));
  const needed = widest + gap + Math.max(...rights.map((line) => stringWidth(line)));
  if (needed > width) return `${left}\n\n${right}`;
  return Array.from({ length: Math.max(lefts.length, rights.length) }, (_, index) => {
    const line = lefts[index] ?? '';
    const space = ' '.repeat(widest + gap - stringWidth(line));
    return `${line}${space}${rights[index] ?? ''}`.trimEnd();
  }).join('\n');
}

/**
 * A sentence in as many lines as the screen needs, broken between words.
 *
 * @param indent columns that stand before it, and before each of its further lines
 */
export function wrapped(sentence: string, { width }: Pick<Screen, 'width'>, indent = 0): string {
  const lines = inLines(sentence, Math.max(20, width - indent));
  return lines.replaceAll('\n', `\n${' '.repeat(indent)}`);
}

/** A space at which no line is broken. */
const bond = '\u00A0';

/** A text broken between words, and not between a number and what it counts. */
function inLines(text: string, width: number): string {
  return wrapAnsi(text.replace(/(\d) (?=\S)/g, `$1${bond}`), width).replaceAll(bond, ' ');
}

/** Words that belong together, joined by dots, in as many lines as the screen needs. */
export function joined(parts: readonly string[], { width }: Screen): string {
  const lines: string[] = [];
  for (const part of parts) {
    const longer = lines.length > 0 ? `${lines.at(-1)} · ${part}` : part;
    // A line that goes on ends with a dot.
    if (lines.length > 0 && stringWidth(longer) <= width - 2) lines[lines.length - 1] = longer;
    else lines.push(part);
  }
  return lines.join(' ·\n');
}
