import type { Resources } from '../../survey/resource.js';
import { groupBy } from '../../base/group-by.js';
import type { Finding, FindingData } from '../finding.js';
import { blockingScript } from './blocking-script.js';
import { embeddedData } from './embedded-data.js';
import { failedFile } from './failed-file.js';
import { largeDocument } from './large-document.js';
import { longLivedDocument } from './long-lived-document.js';
import { oldFont } from './old-font.js';
import { severalCopies } from './several-copies.js';
import { shortLifetime } from './short-lifetime.js';
import { splitCache } from './split-cache.js';
import { sentFiles } from './sent-files.js';
import type { WeighedVisits } from './sent-files.js';
import type { SiteFindingKind } from './site-case.js';
import { uncompressedText } from './uncompressed-text.js';
import { unminifiedText } from './unminified-text.js';

/** Every kind of finding about files that a site sends besides images. */
export const siteFindings = [
  uncompressedText,
  unminifiedText,
  failedFile,
  severalCopies,
  blockingScript,
  embeddedData,
  oldFont,
  largeDocument,
  shortLifetime,
  longLivedDocument,
  splitCache,
] as const;

export type SiteFindingId = (typeof siteFindings)[number]['id'];

/** A finding on a file, or on the documents of a page group. */
export interface SiteFinding extends Finding<SiteFindingId> {
  readonly url: string;
  /** The page group whose documents have it; `null` where it is one file. */
  readonly group: string | null;
  readonly thirdParty: boolean;
  /** The pages concerned. */
  readonly pages: readonly string[];
  /** What an average visit would not be sent, in bytes; `null` where the cost is none of bytes, or cannot be known. */
  readonly perVisit: number | null;
}

/**
 * The findings on the files of a survey, the most costly first. The same fault of several documents of a page group is
 * one.
 *
 * @param groupOf the page group of a page
 */
export function siteFindingsOf(
  resources: Resources,
  weighed: WeighedVisits,
  groupOf: (page: string) => string | null,
  servedHere: ReadonlySet<string> = new Set(),
): SiteFinding[] {
  const files = sentFiles(resources, weighed);
  const withContent = files.filter(({ resource }) => resource.contentHash !== null);
  const sameContent = groupBy(
    withContent.toSorted((a, b) => b.perVisit - a.perVisit),
    ({ resource }) => resource.contentHash!,
  );
  const kinds: readonly SiteFindingKind<SiteFindingId, FindingData>[] = siteFindings;
  const found = files.flatMap((file) =>
    kinds.flatMap((kind): SiteFinding[] => {
      const evidence = kind.check(file, { sameContent, servedHere });
      if (!evidence) return [];
      const { url, type, thirdParty } = file.resource;
      const perVisit = evidence.bytes === null ? null : evidence.bytes * file.perVisit;
      const group = type === 'html' && file.pages.includes(url) ? groupOf(url) : null;
      const { pages } = file;
      return [{ id: kind.id, data: evidence.data, url, group, thirdParty, pages, perVisit }];
    }),
  );
  const rows = groupBy(found, ({ id, group, url }) => JSON.stringify([id, group ?? url]));
  return [...rows.values()].map(together).sort(byCost);
}

/** Several findings of one kind and group as one: that of the document in which it costs the most, for all pages. */
function together(found: readonly SiteFinding[]): SiteFinding {
  const [worst] = found.toSorted(byCost) as [SiteFinding];
  const perVisit =
    worst.perVisit === null ? null : found.reduce((sum, one) => sum + (one.perVisit ?? 0), 0);
  return { ...worst, pages: [...new Set(found.flatMap(({ pages }) => pages))], perVisit };
}

function byCost(a: SiteFinding, b: SiteFinding): number {
  return (b.perVisit ?? -1) - (a.perVisit ?? -1) || b.pages.length - a.pages.length;
}
