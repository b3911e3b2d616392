import type { FindingData } from '../../finding.js';
import { hasCome } from '../site-case.js';
import type { SentFile, SiteCase, SiteEvidence } from '../site-case.js';

/** Less than this, in bytes on the wire, is not worth taking a file apart. */
const leastUnused = 2_000;
const leastShare = 0.2;

/** What no page of the survey uses of a style sheet or a script. */
export function unusedEvidence(
  file: SentFile,
  type: 'style' | 'script',
  site: SiteCase,
): SiteEvidence<FindingData & UnusedData> | undefined {
  const { url, wireBytes, type: own } = file.resource;
  if (own !== type || !hasCome(file.resource)) return undefined;
  const usage = site.usageOf(file);
  if (!usage) return undefined;
  const share = usage.unused / usage.units;
  const unusedBytes = Math.round(share * wireBytes);
  if (unusedBytes < leastUnused || share < leastShare) return undefined;
  const groups = [...usage.unusedBy].map(([group, unused]) => ({
    group,
    share: Math.round((unused / usage.units) * 100) / 100,
  }));
  const data = {
    url,
    share: Math.round(share * 100) / 100,
    unusedBytes,
    wireBytes,
    pages: file.pages.length,
    groups: groups.sort((a, b) => b.share - a.share).slice(0, 20),
  };
  return { data, bytes: unusedBytes };
}

export interface UnusedData {
  readonly url: string;
  /** The part of the text, 0 to 1. */
  readonly share: number;
  /** That part of the bytes on the wire. */
  readonly unusedBytes: number;
  readonly wireBytes: number;
  readonly pages: number;
  /** The part that the pages of each page group leave unused. */
  readonly groups: readonly { readonly group: string; readonly share: number }[];
}

export const unusedCost =
  'The cost is the unused part of the text, as that part of its bytes on the wire, from 2 kB and a fifth.';
