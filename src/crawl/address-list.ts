import { pageAddress } from '../core/address/address.js';
import { UsageError } from '../core/base/errors.js';
import { numberIn, readTable, textOf, visitsHeadings } from './table-file.js';

/** A page that a person or a sitemap named. */
export interface ListedPage {
  readonly url: string;
  /** Visits a month; `null` when nobody said. */
  readonly visits: number | null;
}

/** Headings that a list may have, in lower case. */
const addressHeadings = ['url', 'address', 'page', 'page url', 'landing page', 'link'];

/** The most pages that a list may name. */
const maxRows = 1_000_000;

/**
 * Reads a list of pages: one address a line, or CSV with a heading, a column of addresses and one of
 * visits a month. Empty lines, and lines that begin with `#`, are passed over.
 *
 * @throws NotFoundError when there is no such file; UsageError with line number for what is no address
 *   or no number.
 */
export function readAddressList(path: string): ListedPage[] {
  return parseAddressList(textOf(path), path);
}

/** @param name how the list is called in messages */
export function parseAddressList(text: string, name: string): ListedPage[] {
  const lines = linesOf(text);
  const headed = lines.length > 0 && !/^https?:/i.test(lines[0]!.text);
  const pages = headed ? pagesInTable(text, name) : lines.map((line) => pageInLine(line, name));
  if (pages.length === 0)
    throw new UsageError(`${name} names no page`, { hint: 'write one address a line' });
  if (pages.length > maxRows)
    throw new UsageError(`${name} names more than ${maxRows} pages`, { hint: 'cut it in parts' });
  return pages;
}

interface Line {
  /** Where it stands, from 1. */
  readonly number: number;
  readonly text: string;
}

function linesOf(text: string): Line[] {
  return text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .map((line, index) => ({ number: index + 1, text: line.trim() }))
    .filter(({ text: line }) => line !== '' && !line.startsWith('#'));
}

function pageInLine({ number, text }: Line, name: string): ListedPage {
  if (/[,;\t]\s*\d+$/.test(text))
    throw new UsageError(
      `${name}, line ${number}: more than an address, and no heading says what`,
      {
        hint: 'put a line above all others that says url,visits',
      },
    );
  return { url: addressIn(text, name, number), visits: null };
}

function pagesInTable(text: string, name: string): ListedPage[] {
  const { rows, column } = readTable(text, name);
  const address = column(addressHeadings);
  const visits = column(visitsHeadings, 'optional');
  return rows.map(({ line, cells }) => ({
    url: addressIn(cells[address] ?? '', name, line),
    visits: numberIn(cells[visits] ?? '', name, line, 'number of visits'),
  }));
}

function addressIn(cell: string, name: string, line: number): string {
  const url = /^https?:\/\//i.test(cell) ? pageAddress(cell) : undefined;
  if (url) return url;
  throw new UsageError(
    `${name}, line ${line}: ${JSON.stringify(cell.slice(0, 100))} is no address`,
    {
      hint: 'addresses begin with http:// or https://',
    },
  );
}
