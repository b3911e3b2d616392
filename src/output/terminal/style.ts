import picocolors from 'picocolors';
import Table from 'cli-table3';

/** How wide to draw, and whether in colour. */
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
  readonly align?: 'left' | 'right';
}

/** A table without rules: a dim heading, two spaces between columns. */
export function table(
  screen: Screen,
  columns: readonly Column[],
  rows: readonly (readonly string[])[],
): string {
  const { dim } = paletteFor(screen);
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

const eighths = ['', '▏', '▎', '▍', '▌', '▋', '▊', '▉'];

/** A bar of `share` (0 to 1) of `width` columns, to an eighth of a column. */
export function bar(share: number, width: number): string {
  const total = Math.round(Math.min(1, Math.max(0, share)) * width * 8);
  return '█'.repeat(Math.floor(total / 8)) + eighths[total % 8]!;
}
