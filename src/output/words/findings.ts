import type { Finding, FindingFormat } from '../../core/findings/finding.js';
import { findingKind } from '../../core/findings/index.js';
import { count, formatBytes, formatTime } from './units.js';

const format: FindingFormat = { bytes: formatBytes, time: formatTime, count };

/** What was found, in words. */
export function findingWords({ id, data }: Finding): string {
  return findingKind(id)?.describe(data, format) ?? id;
}

/** What several findings of one kind are counted under. */
export function findingTitle(id: string): string {
  return findingKind(id)?.title ?? id;
}
