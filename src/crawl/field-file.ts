import { array, number, object, string } from 'yup';
import { ValidationError } from 'yup';
import { pageAddress } from '../core/address/address.js';
import { UsageError, messageOf } from '../core/base/errors.js';
import { percentileOf } from '../core/history/field.js';
import type { FieldMeasurement, HistogramBin } from '../core/history/field.js';
import { markerNames } from '../core/load/markers.js';
import type { MarkerName } from '../core/load/markers.js';
import { numberIn, quoted, readTable, textOf } from './table-file.js';

/** The most measurements in one file. */
const maxRows = 1_000_000;

/** A measurement as a file has it. */
interface FieldRow {
  readonly date: string;
  readonly page?: string | undefined;
  readonly group?: string | undefined;
  readonly marker: string;
  readonly p75?: number | null | undefined;
  readonly histogram?: readonly HistogramBin[] | undefined;
  readonly count: number;
}

/** Whether a text is a file of measurements of visitors: JSON, or CSV with a column of markers. */
export function isField(text: string): boolean {
  const [first = ''] = text.trimStart().split(/[\r\n]/, 1);
  return /^[[{]/.test(first) || /(?:^|[,;\t])\s*"?marker"?\s*(?:[,;\t]|$)/i.test(first);
}

/**
 * Reads what visitors measured: CSV with the columns date, page or group, marker, p75 or histogram, and count, or a JSON
 * list of objects with the same names.
 *
 * @throws NotFoundError when there is no such file; UsageError with what is wrong, and where.
 */
export function readField(path: string): FieldMeasurement[] {
  const text = textOf(path);
  if (isField(text)) return parseField(text, path);
  throw new UsageError(`${path} holds no measurements of visitors`, {
    hint: 'it needs the columns date, page or group, marker, p75 or histogram, and count',
  });
}

/** @param name how the file is called in messages */
export function parseField(text: string, name: string): FieldMeasurement[] {
  const isJson = /^\s*[[{]/.test(text);
  const rows = isJson ? rowsOfJson(text, name) : rowsOfTable(text, name);
  if (rows.length > maxRows)
    throw new UsageError(`${name} has more than ${maxRows} measurements`, { hint: 'split it' });
  return rows.map(({ where, row }) => measurementOf(row, `${name}, ${where}`));
}

interface PlacedRow {
  readonly where: string;
  readonly row: FieldRow;
}

function rowsOfTable(text: string, name: string): PlacedRow[] {
  const { rows, column } = readTable(text, name);
  const at = {
    date: column(['date', 'day', 'time']),
    page: column(['page', 'url', 'address'], 'optional'),
    group: column(['group', 'page group'], 'optional'),
    marker: column(['marker']),
    p75: column(['p75'], 'optional'),
    histogram: column(['histogram'], 'optional'),
    count: column(['count', 'visits']),
  };
  return rows.map(({ line, cells }) => {
    const cell = (place: number) => cells[place] || undefined;
    const histogram = cell(at.histogram);
    return {
      where: `line ${line}`,
      row: {
        date: cells[at.date] ?? '',
        page: cell(at.page),
        group: cell(at.group),
        marker: cells[at.marker] ?? '',
        p75: numberIn(cells[at.p75] ?? '', name, line, '75th percentile'),
        histogram: histogram === undefined ? undefined : binsIn(histogram, name, line),
        count: numberIn(cells[at.count] ?? '', name, line, 'number of visits') ?? 0,
      },
    };
  });
}

/** Classes as `0-1000:340 1000-2500:200`. */
function binsIn(cell: string, name: string, line: number): HistogramBin[] {
  return cell.split(/\s+/).map((part) => {
    const [, from, to, count] = /^([\d.]+)-([\d.]+):(\d+)$/.exec(part) ?? [];
    if (count === undefined)
      throw new UsageError(`${name}, line ${line}: ${quoted(part)} is no class of a histogram`, {
        hint: 'write from-to:count, like 0-1000:340 1000-2500:200',
      });
    return { from: Number(from), to: Number(to), count: Number(count) };
  });
}

const rowSchema = object({
  date: string().required('a date'),
  page: string(),
  group: string(),
  marker: string().required('a marker'),
  p75: number().nullable(),
  histogram: array().of(
    object({
      from: number().required('from'),
      to: number().required('to'),
      count: number().required('count'),
    }),
  ),
  count: number().required('a number of visits'),
});

function rowsOfJson(text: string, name: string): PlacedRow[] {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new UsageError(`${name} is not JSON: ${messageOf(error)}`, { cause: error });
  }
  if (!Array.isArray(document))
    throw new UsageError(`${name} is not a list of measurements`, {
      hint: 'write a JSON list of objects with date, page or group, marker, p75, count',
    });
  return document.map((one: unknown, at) => {
    const where = `measurement ${at + 1}`;
    try {
      return { where, row: rowSchema.validateSync(one) };
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      throw new UsageError(`${name}, ${where}: ${error.path}: expected ${error.message}`);
    }
  });
}

/** @param where of the row, for messages */
function measurementOf({ date, page, group, marker, ...row }: FieldRow, where: string) {
  const wrong = (words: string, hint?: string) =>
    new UsageError(`${where}: ${words}`, hint === undefined ? {} : { hint });
  const day = Date.parse(date);
  if (!/^\d{4}-\d{2}-\d{2}/.test(date) || Number.isNaN(day))
    throw wrong(`${quoted(date)} is not a date`, 'write it like 2026-11-27');
  if (!(markerNames as readonly string[]).includes(marker))
    throw wrong(`there is no marker ${quoted(marker)}`, `there are: ${markerNames.join(', ')}`);
  if ((page === undefined) === (group === undefined))
    throw wrong('a measurement is of a page or of a page group', 'fill one of the two');
  const address = page === undefined ? null : pageAddress(page);
  if (address === undefined) throw wrong(`${quoted(page ?? '')} is not an address`);
  return {
    ...{ date: new Date(day).toISOString(), page: address, group: group ?? null },
    ...{ marker: marker as MarkerName, ...valueOf(row, wrong) },
  };
}

function valueOf(
  { p75, histogram = [], count }: Pick<FieldRow, 'p75' | 'histogram' | 'count'>,
  wrong: (words: string, hint?: string) => UsageError,
): Pick<FieldMeasurement, 'value' | 'count'> {
  if (p75 !== null && p75 !== undefined) {
    if (p75 >= 0) return { value: p75, count };
    throw wrong('a 75th percentile is not below 0');
  }
  const isSound = histogram.every(
    ({ from, to, count: of }, at) => from < to && of >= 0 && from >= (histogram[at - 1]?.to ?? 0),
  );
  if (histogram.some(({ count: of }) => of > 0) && isSound)
    return { value: percentileOf(histogram), count };
  throw wrong(
    histogram.length > 0 ? 'the classes of its histogram overlap, or are empty' : 'it has no value',
    'give p75, or a histogram with ascending classes',
  );
}
