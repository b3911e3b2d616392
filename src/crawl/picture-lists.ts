import { noCredit } from '../core/refit/credit.js';
import type { Credit } from '../core/refit/credit.js';
import { UsageError } from '../core/base/errors.js';
import { isSafeStem } from '../core/refit/plan/refit-names.js';
import { quoted, readTable, textOf } from './table-file.js';
import type { Table } from './table-file.js';

/** The entry of a file on one picture, with its place. */
export interface ListedPicture<Said> {
  /** How the file names it: an address, a path, or a file name. */
  readonly name: string;
  readonly said: Said;
  /** The place of the name, for messages. */
  readonly where: string;
}

/**
 * Reads new names of pictures: CSV with the columns `old` and `new`, of which the second is a name without extension,
 * or a path of such.
 *
 * @throws NotFoundError when there is no such file; UsageError with line and column of what is wrong.
 */
export function readRenames(path: string): ListedPicture<string>[] {
  const table = readTable(textOf(path), path);
  const fresh = table.column(['new', 'new name', 'to']);
  return namedRows(path, table, ['old', 'old name', 'from']).map(({ name, line, where, cells }) => {
    const said = cells[fresh] ?? '';
    if (isSafeStem(said)) return { name, where, said };
    throw new UsageError(
      `${path}, line ${line}, column new: ${quoted(said)} is not a usable file name`,
      { hint: 'letters, digits, - _ . ~ and / between folders; no extension, no ..' },
    );
  });
}

/**
 * Reads what pictures show and whose they are: CSV with the column `image` and any of `title`, `description`,
 * `keywords` (with semicolons between), `creator`, `copyright`.
 *
 * @throws NotFoundError when there is no such file; UsageError with line and column of what is wrong.
 */
export function readCredits(path: string): ListedPicture<Credit>[] {
  const table = readTable(textOf(path), path);
  const place = (name: string) => table.column([name], 'optional');
  const texts = (['title', 'description', 'creator', 'copyright'] as const).map(
    (name) => [name, place(name)] as const,
  );
  const keywords = place('keywords');
  if ([...texts.map(([, at]) => at), keywords].every((at) => at < 0))
    throw new UsageError(`${path}, line 1: there is no column title, description or keywords`, {
      hint: 'the first line must name the columns, among them image',
    });
  return namedRows(path, table, ['image', 'file', 'old', 'address']).map(
    ({ name, where, cells }) => {
      const given = texts.map(([field, at]) => [field, cells[at] || null] as const);
      const words = (cells[keywords] ?? '').split(';').map((word) => word.trim());
      const said = { ...noCredit, ...Object.fromEntries(given), keywords: words.filter(Boolean) };
      return { name, where, said };
    },
  );
}

/** The rows of a table that name one picture each, no picture twice. */
function namedRows(path: string, { rows, column }: Table, headings: readonly string[]) {
  const at = column(headings);
  const seen = new Map<string, number>();
  return rows.map(({ line, cells }) => {
    const name = cells[at] ?? '';
    const where = `${path}, line ${line}, column ${headings[0]!}`;
    if (name === '') throw new UsageError(`${where}: no image is named`);
    const before = seen.get(name);
    if (before !== undefined)
      throw new UsageError(`${where}: ${quoted(name)} is already in line ${before}`);
    seen.set(name, line);
    return { name, line, where, cells };
  });
}
