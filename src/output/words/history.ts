import { pathOf } from '../../core/address/address.js';
import type { FieldDisagreement } from '../../core/history/disagreements.js';
import type { FigureMeasure } from '../../core/history/figures.js';
import type { FileMove, Move, MoveReason, Movement } from '../../core/history/movement.js';
import type { Series, SeriesStep, SeriesUnit } from '../../core/history/series.js';
import { signed } from './change.js';
import { plainText, shorten } from './plain-text.js';
import { formatBytes, formatTime } from './units.js';

/** A value of a series in its unit. */
export function seriesValue(value: number, unit: SeriesUnit): string {
  switch (unit) {
    case 'bytes':
      return formatBytes(value);
    case 'ms':
      return formatTime(value);
    case 'score':
      return value.toFixed(3);
    default:
      return value.toLocaleString('en');
  }
}

/** What a series is of: its number, its page and its conditions. */
export function seriesTitle({ title, page, conditions, source }: Series): string {
  return [
    title,
    ...(page === null ? [] : [`of ${URL.canParse(page) ? pathOf(page) : page}`]),
    ...(conditions === null ? [] : [`(${conditions})`]),
    ...(source === 'field' ? ['(visitors, 75th percentile)'] : []),
  ].join(' ');
}

const levels = '▁▂▃▄▅▆▇█';

/** The newest values of a series as a row of columns, from nothing to the largest of them. */
export function sparkline(values: readonly number[], width: number): string {
  const shown = values.slice(-width);
  const most = Math.max(...shown, 0);
  return shown
    .map((value) => levels[most > 0 ? Math.round((value / most) * (levels.length - 1)) : 0])
    .join('');
}

/** A number that moved, in its unit; requests are those of one visit. */
export function moveValue(value: number, measure: FigureMeasure): string {
  return measure === 'requests' ? `${(value / 1_000).toFixed(1)} requests` : formatBytes(value);
}

/** A change with its sign. */
export function moveChange({ change }: Pick<Move, 'change'>, measure: FigureMeasure): string {
  return signed(change, (value) => moveValue(value, measure));
}

/** What a measure is of. */
export const measureTitles: Readonly<Record<FigureMeasure, string>> = {
  bytes: 'bytes of an average visit',
  waste: 'waste of an average visit',
  requests: 'requests of an average visit',
};

const reasons: Readonly<Record<MoveReason, string>> = {
  new: 'new',
  gone: 'gone',
  content: 'another content',
  delivery: 'sent in another way',
  need: 'another need',
  visits: 'sent on more or fewer visits',
};

/** A reason of which a list is kept, in words. */
export function reasonWords(reason: string): string {
  return reasons[reason as MoveReason] ?? reason;
}

/** Why a file moved. */
export function fileReason({ was, is, reasons: of, change }: FileMove): string {
  return of
    .toSorted((a, b) => Math.abs(b.change) - Math.abs(a.change))
    .map(({ reason, change: part }) => {
      const how = part === change ? '' : ` ${signed(part, formatBytes)}`;
      if (reason === 'visits') return `sent on ${part > 0 ? 'more' : 'fewer'} visits${how}`;
      if (reason !== 'delivery' || !was || !is) return `${reasons[reason]}${how}`;
      const [before, after] = [was, is].map(
        ({ delivery }) => delivery.encoding || 'no compression',
      );
      return `${before === after ? reasons.delivery : `${after} instead of ${before}`}${how}`;
    })
    .join(', ');
}

/** A step in one sentence. */
export function stepWords(
  series: Series,
  { before, after, point, browserChanged }: SeriesStep,
): string {
  const [was, is] = [before, after].map((value) => seriesValue(value, series.unit));
  const label = point.label === '' ? '' : ` with ${plainText(point.label, 60)}`;
  const browser = browserChanged ? '; the browser changed as well' : '';
  return `${seriesTitle(series)}: from ${was} to ${is}${label} on ${point.at.slice(0, 10)}${browser}`;
}

/** What moved most, in one line; empty where nothing did. */
export function movedMost({ files, measure }: Movement, most = 3): string {
  return files
    .slice(0, most)
    .map(
      (file) =>
        `${moveChange(file, measure)} ${shorten(nameOf(file.key), 60)} (${fileReason(file)})`,
    )
    .join('; ');
}

/** An address as it is listed. */
export function nameOf(key: string): string {
  return URL.canParse(key) && /^https?:/.test(key) ? pathOf(key) : key;
}

/** Where visitors and `clock` disagree. */
export function disagreementWords(one: FieldDisagreement): string {
  const { page, title, unit, field, clock } = one;
  const moved = ({ before, after }: { before: number; after: number }) =>
    `from ${seriesValue(before, unit)} to ${seriesValue(after, unit)}`;
  return `${title} of ${nameOf(page)}: ${moved(field)} for visitors (75th percentile), ${moved(clock)} under clock (${clock.conditions}, median)`;
}
