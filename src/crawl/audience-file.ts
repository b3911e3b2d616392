import type { Device } from '../core/visitors/audience.js';
import { UsageError } from '../core/base/errors.js';
import { numberIn, readTable, textOf, visitsHeadings } from './table-file.js';

const columns = {
  width: { headings: ['width', 'viewport width', 'screen width'], least: 100, most: 10_000 },
  height: { headings: ['height', 'viewport height', 'screen height'], least: 100, most: 10_000 },
  density: {
    headings: ['density', 'pixel ratio', 'device pixel ratio', 'dpr'],
    least: 0.5,
    most: 8,
  },
} as const;

/** Headings of a column with both sides in it, as `390x844`. */
const sizeHeadings = ['size', 'viewport', 'viewport size', 'screen resolution', 'resolution'];

/**
 * Reads an analytics export: CSV with the columns width, height, density and visits, and touch where it
 * is known; both sides may also stand in one column, as `390x844`.
 *
 * @throws NotFoundError when there is no such file; UsageError with the number of the line that is wrong.
 */
export function readAudience(path: string): Device[] {
  const { rows, column } = readTable(textOf(path), path);
  const size = column(sizeHeadings, 'optional');
  const width = size < 0 ? column(columns.width.headings) : -1;
  const height = size < 0 ? column(columns.height.headings) : -1;
  const density = column(columns.density.headings, 'optional');
  const visits = column(visitsHeadings);
  const touch = column(['touch'], 'optional');
  const devices = rows.map(({ line, cells }) => {
    const numeric = (what: keyof typeof columns, cell: string | undefined): number => {
      const { least, most } = columns[what];
      const value = numberIn(cell ?? '', path, line, what);
      if (value !== null && value >= least && value <= most) return value;
      throw new UsageError(`${path}, line ${line}: ${what} must be from ${least} to ${most}`);
    };
    const sides = /^(\d+)\s*[x×*]\s*(\d+)$/i.exec(cells[size] ?? '') ?? [];
    return {
      // Browsers have whole pixels; what an export has averaged is rounded.
      width: Math.round(numeric('width', size < 0 ? cells[width] : sides[1])),
      height: Math.round(numeric('height', size < 0 ? cells[height] : sides[2])),
      density: density < 0 ? 1 : numeric('density', cells[density]),
      visits: numberIn(cells[visits] ?? '', path, line, 'number of visits') ?? 0,
      touch: touch < 0 ? null : touchIn(cells[touch] ?? '', path, line),
    };
  });
  if (devices.some((device) => device.visits > 0)) return devices;
  throw new UsageError(`${path} has no visits`, {
    hint: 'one row for each kind of screen: width, height, density, visits',
  });
}

function touchIn(cell: string, path: string, line: number): boolean | null {
  if (cell === '') return null;
  if (/^(?:yes|true|1)$/i.test(cell)) return true;
  if (/^(?:no|false|0)$/i.test(cell)) return false;
  throw new UsageError(`${path}, line ${line}: touch must be yes or no`);
}
