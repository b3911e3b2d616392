import { stringify } from 'csv-stringify/sync';
import { plainText } from '../words/plain-text.js';

export type Cell = string | number | null;

/** Records as CSV (RFC 4180) with a line of names, for a spreadsheet to open. */
export function csvOf(records: readonly Readonly<Record<string, Cell>>[]): string {
  return stringify(records.map(harmless), { header: true, record_delimiter: 'windows' }).trimEnd();
}

/**
 * Texts as they may stand in a file that a spreadsheet opens: without control characters, and never as a formula,
 * which a text that begins with one of these signs would be.
 */
function harmless(record: Readonly<Record<string, Cell>>): Record<string, Cell> {
  const cells = Object.entries(record).map(([name, cell]) => {
    if (typeof cell !== 'string') return [name, cell] as const;
    const text = plainText(cell, 5_000);
    return [name, /^[=+\-@]/.test(text) ? `'${text}` : text] as const;
  });
  return Object.fromEntries<Cell>(cells);
}
