import type { Finding, FindingFormat } from '../../core/findings/finding.js';
import { findingKind } from '../../core/findings/index.js';
import type { FindingRow } from '../../core/rank/finding-rows.js';
import { count, formatBytes, formatTime } from './units.js';

const format: FindingFormat = { bytes: formatBytes, time: formatTime, count };

/** The finding in words. */
export function findingWords({ id, data }: Finding): string {
  return findingKind(id)?.describe(data, format) ?? id;
}

/** What every table says of a kind of finding: its id, its title, who mends it, how often it was found, its cost. */
export function findingCells(row: FindingRow): string[] {
  return [
    row.id,
    findingTitle(row.id),
    row.doer ?? '–',
    count(row.count, row.about),
    String(row.pages),
    row.bytesPerVisit === null ? '–' : formatBytes(row.bytesPerVisit),
    row.timePerVisit === null ? '–' : formatTime(row.timePerVisit),
  ];
}

/** The plural under which findings of one kind are counted. */
export function findingTitle(id: string): string {
  return findingKind(id)?.title ?? id;
}
