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
  /** Of sentences, which are broken into lines rather than cut: into so many columns before spare ones are left out. */
  readonly wraps?: number;
  readonly align?: 'left' | 'right';
}

/**
 * A table without rules: a dim heading, two spaces between columns. On a narrow screen sentences are broken into lines, then
 * spare columns are left out, the last first, and then the widest column is cut.
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

/** The fewest columns that a text is cut to. */
const leastText = 8;

/** The fewest columns that sentences are broken into. */
const leastSentence = 12;

function fitted(all: readonly Column[], allRows: readonly (readonly string[])[], width: number) {
  const kept = all.map((column, at) => ({
    ...column,
    at,
    wide: Math.max(stringWidth(column.title), ...allRows.map((row) => stringWidth(row[at] ?? ''))),
  }));
  const excess = (widthOf = (column: (typeof kept)[number]) => column.wide) =>
    kept.reduce((sum, column) => sum + widthOf(column), gap * (kept.length - 1)) - width;
  while (excess(({ wide, wraps = wide }) => Math.min(wide, wraps)) > 0) {
    const spare = kept.findLastIndex((column) => column.spare);
    if (spare < 0) break;
    kept.splice(spare, 1);
  }
  const sentences = kept.filter(({ wraps }) => wraps !== undefined).toReversed();
  for (const least of [undefined, leastSentence])
    for (const column of sentences)
      column.wide = Math.max(
        Math.min(column.wide, least ?? column.wraps!),
        column.wide - Math.max(0, excess()),
      );
  const over = excess();
  const widest = kept
    .filter(({ wraps }) => wraps === undefined)
    .toSorted((a, b) => b.wide - a.wide)[0];
  const most = widest && over > 0 ? Math.max(leastText, widest.wide - over) : Infinity;
  const cellOf = (row: readonly string[], { at, wraps, wide }: (typeof kept)[number]) => {
    const text = row[at] ?? '';
    if (wraps !== undefined) return wrapAnsi(text, wide);
    const isCut = at === widest?.at && stringWidth(text) > most && !text.includes('\u001B');
    return isCut ? shorten(text, most) : text;
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
  const lines = wrapAnsi(sentence, Math.max(20, width - indent));
  return lines.replaceAll('\n', `\n${' '.repeat(indent)}`);
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
