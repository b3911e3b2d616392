import { readFileSync } from 'node:fs';
import { CsvError, parse } from 'csv-parse/sync';
import { LynxError, NotFoundError, UsageError, messageOf } from '../core/base/errors.js';
import { linesIn } from './lines.js';

/** Headings of a column of visits, in lower case. */
export const visitsHeadings = [
  'visits',
  'sessions',
  'views',
  'pageviews',
  'page views',
  'visitors',
  'users',
] as const;

export interface TableRow {
  /** Its line in the file, from 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

/**
 * The place of the column with one of these headings, in lower case; -1 for an optional one that is not there.
 *
 * @throws UsageError when it is missing.
 */
export type ColumnOf = (headings: readonly string[], optional?: 'optional') => number;

export interface Table {
  /** All rows below the heading. */
  readonly rows: readonly TableRow[];
  readonly column: ColumnOf;
}

/**
 * Reads a CSV file with a heading; commas, semicolons or tabs stand between its columns. Empty lines, and
 * lines that begin with `#`, are skipped.
 *
 * @param name how the file is called in messages
 * @throws UsageError with the number of the line that is wrong.
 */
export function readTable(text: string, name: string): Table {
  const rows: TableRow[] = [];
  let table: Table | undefined;
  eachRow(text, name, (column) => {
    table = { rows, column };
    return (row) => rows.push(row);
  });
  return table!;
}

/**
 * The same, a row at a time: none of them is kept.
 *
 * @param begin is called with the heading, and returns what is called with each row
 */
export function eachRow(
  text: string,
  name: string,
  begin: (column: ColumnOf) => (row: TableRow) => void,
): void {
  let take: ((row: TableRow) => void) | undefined;
  parseRows(text, name, (row) => {
    if (take) take(row);
    else take = begin(columnsOf(row, name));
  });
  if (!take) begin(columnsOf({ line: 1, cells: [] }, name));
}

function columnsOf(heading: TableRow, name: string): ColumnOf {
  const words = heading.cells.map((cell) => cell.toLowerCase());
  return (headings, optional) => {
    const place = words.findIndex((word) => headings.includes(word));
    if (place >= 0 || optional) return place;
    throw new UsageError(
      `${name}, line ${heading.line}: there is no column ${headings.join(', ')}`,
      { hint: `the first line must name the columns; here it is ${quoted(words.join(','))}` },
    );
  };
}

/** The separator of the columns, found from the first line with text. */
function delimiterOf(text: string): string {
  const [{ text: heading } = { text: '' }] = linesIn(text);
  return ['\t', ';'].find((sign) => heading.includes(sign)) ?? ',';
}

function parseRows(text: string, name: string, take: (row: TableRow) => void): void {
  try {
    parse(text, {
      bom: true,
      comment: '#',
      comment_no_infix: true,
      delimiter: delimiterOf(text),
      on_record: (cells: string[], { lines }) => {
        take({ line: lines, cells });
        return undefined;
      },
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    });
  } catch (error) {
    if (error instanceof LynxError) throw error;
    const line = error instanceof CsvError ? Number(error['lines'] ?? 1) : 1;
    throw new UsageError(`${name}, line ${line}: ${messageOf(error)}`, {
      hint: 'is it a CSV file?',
      cause: error,
    });
  }
}

/**
 * A number as spreadsheets write it: `1200`, `1,200`, `1 200`, `2.5`; nothing is `null`.
 *
 * @param what it should be, for the message
 * @throws UsageError with the number of the line.
 */
export function numberIn(cell: string, name: string, line: number, what: string): number | null {
  if (cell === '') return null;
  const plain = cell.replace(/[\s'\u00a0\u202f]/g, '').replace(/,(?=\d{3}(?:\D|$))/g, '');
  const number = /^\d+(?:\.\d+)?$/.test(plain) ? Number(plain) : Infinity;
  // Beyond that, two numbers that differ are the same.
  if (number <= Number.MAX_SAFE_INTEGER) return number;
  throw new UsageError(`${name}, line ${line}: ${quoted(cell)} is not a ${what}`);
}

/**
 * The text of a file in UTF-8 or UTF-16.
 *
 * @throws NotFoundError, UsageError when a file cannot be read.
 */
export function textOf(path: string): string {
  let bytes: Buffer;
  try {
    bytes = readFileSync(path);
  } catch (error) {
    const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
    if (missing) throw new NotFoundError(`there is no file ${path}`, { cause: error });
    throw new UsageError(`${path} cannot be read: ${messageOf(error)}`, { cause: error });
  }
  if (bytes.length > maxBytes)
    throw new UsageError(`${path} is larger than ${maxBytes / 1e6} MB`, { hint: 'split it' });
  try {
    return new TextDecoder(encodingOf(bytes), { fatal: true }).decode(bytes);
  } catch {
    // Older spreadsheets save the letters of western Europe in one byte each.
    if (!bytes.includes(0)) return new TextDecoder('windows-1252').decode(bytes);
    throw new UsageError(`${path} is not a text in UTF-8 or UTF-16`, {
      hint: 'save it as UTF-8',
    });
  }
}

/** A text of a million addresses has less. */
const maxBytes = 400e6;

/** By the byte order mark, as spreadsheets write it (the Unicode Standard, section 23.8). */
function encodingOf(bytes: Buffer): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
}

export function quoted(text: string): string {
  return JSON.stringify(text.slice(0, 100));
}
