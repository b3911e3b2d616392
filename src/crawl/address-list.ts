import { pageAddress } from '../core/address/address.js';
import { UsageError } from '../core/base/errors.js';
import type { FieldMeasurement } from '../core/history/field.js';
import { isField, parseField } from './field-file.js';
import { linesIn } from './lines.js';
import type { Line } from './lines.js';
import { eachRow, numberIn, textOf, visitsHeadings } from './table-file.js';

/** A page that a person or a sitemap named. */
export interface ListedPage {
  readonly url: string;
  /** Visits a month; `null` if unknown. */
  readonly visits: number | null;
}

/** Headings that a list may have, in lower case. */
const addressHeadings = ['url', 'address', 'page', 'page url', 'landing page', 'link'];

/** The most pages that a list may name. */
const maxRows = 1_000_000;

/**
 * Reads a list of pages: one address a line, or CSV with a heading, a column of addresses and one of
 * visits a month. Empty lines, and lines that begin with `#`, are skipped.
 *
 * @throws NotFoundError when there is no such file; UsageError with line number for what is not an address
 *   or no number.
 */
export function readAddressList(path: string): ListedPage[] {
  return parseAddressList(textOf(path), path);
}

/** @param name how the list is called in messages */
export function parseAddressList(text: string, name: string): ListedPage[] {
  if (isField(text)) return visitsOfField(parseField(text, name), name);
  const pages: ListedPage[] = [];
  const take = (page: ListedPage) => {
    if (pages.push(page) > maxRows)
      throw new UsageError(`${name} lists more than ${maxRows} pages`, { hint: 'split it' });
  };
  const [first] = linesIn(text);
  if (first && !/^https?:/i.test(first.text)) eachPageInTable(text, name, take);
  else for (const line of linesIn(text)) take(pageInLine(line, name));
  if (pages.length === 0)
    throw new UsageError(`${name} lists no pages`, { hint: 'write one address per line' });
  return pages;
}

/** The pages that visitors were on, with as many visits as their most frequent marker counts. */
function visitsOfField(measurements: readonly FieldMeasurement[], name: string): ListedPage[] {
  const counts = new Map<string, Map<string, number>>();
  for (const { page, marker, count } of measurements) {
    if (page === null) continue;
    const ofPage = counts.get(page) ?? new Map<string, number>();
    counts.set(page, ofPage.set(marker, (ofPage.get(marker) ?? 0) + count));
  }
  if (counts.size === 0)
    throw new UsageError(`${name} measures page groups only: it lists no pages`, {
      hint: 'give measurements of pages, or a list of addresses',
    });
  return [...counts].map(([url, ofPage]) => ({ url, visits: Math.max(...ofPage.values()) }));
}

function pageInLine({ number, text }: Line, name: string): ListedPage {
  if (/[,;\t]\s*\d+$/.test(text))
    throw new UsageError(`${name}, line ${number}: more than an address, but no heading`, {
      hint: 'put the heading url,visits into the first line',
    });
  return { url: addressIn(text, name, number), visits: null };
}

function eachPageInTable(text: string, name: string, take: (page: ListedPage) => void): void {
  eachRow(text, name, (column) => {
    const address = column(addressHeadings);
    const visits = column(visitsHeadings, 'optional');
    return ({ line, cells }) =>
      take({
        url: addressIn(cells[address] ?? '', name, line),
        visits: numberIn(cells[visits] ?? '', name, line, 'number of visits'),
      });
  });
}

function addressIn(cell: string, name: string, line: number): string {
  const url = /^https?:\/\//i.test(cell) ? pageAddress(cell) : undefined;
  if (url) return url;
  throw new UsageError(
    `${name}, line ${line}: ${JSON.stringify(cell.slice(0, 100))} is not an address`,
    {
      hint: 'addresses begin with http:// or https://',
    },
  );
}
