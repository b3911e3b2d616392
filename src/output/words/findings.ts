import type { Finding, FindingFormat } from '../../core/findings/finding.js';
import { findingKind } from '../../core/findings/index.js';
import { count, formatBytes, formatTime } from './units.js';

const format: FindingFormat = { bytes: formatBytes, time: formatTime, count };

/** The finding in words. */
export function findingWords({ id, data }: Finding): string {
  return findingKind(id)?.describe(data, format) ?? id;
}

/** The plural under which findings of one kind are counted. */
export function findingTitle(id: string): string {
  return findingKind(id)?.title ?? id;
}
