import { sum } from 'simple-statistics';
import { groupBy } from '../../base/group-by.js';
import type { Finding, FindingData } from '../finding.js';
import { cachingFindings } from './caching/index.js';
import { connectionFindings } from './connection/index.js';
import { fontFindings } from './fonts/index.js';
import { openSite } from './open-site.js';
import type { SurveyedSite } from './open-site.js';
import { orderFindings } from './order/index.js';
import { serviceFindings } from './services/index.js';
import type { SentFile, SiteEvidence, SiteFindingKind, SitePage } from './site-case.js';
import { textFindings } from './text/index.js';
import { threadFindings } from './thread/index.js';
import { useFindings } from './use/index.js';
import { videoFindings } from './video/index.js';

/** Every kind of finding about what pages are sent besides images, and how they load, by what it is about. */
export const siteTopics = {
  text: textFindings,
  use: useFindings,
  order: orderFindings,
  caching: cachingFindings,
  connection: connectionFindings,
  services: serviceFindings,
  thread: threadFindings,
  fonts: fontFindings,
  video: videoFindings,
} as const;

export const siteFindings = [
  ...textFindings,
  ...useFindings,
  ...orderFindings,
  ...cachingFindings,
  ...connectionFindings,
  ...serviceFindings,
  ...threadFindings,
  ...fontFindings,
  ...videoFindings,
] as const;

export type SiteFindingId = (typeof siteFindings)[number]['id'];

/** A finding on a file, on the pages of a page group, or on all that comes from one domain. */
export interface SiteFinding extends Finding<SiteFindingId> {
  /** The file or page that has it; of several the one that costs the most. */
  readonly url: string;
  /** The page group whose pages have it; `null` where it is one file. */
  readonly group: string | null;
  readonly thirdParty: boolean;
  /** The pages concerned. */
  readonly pages: readonly string[];
  /** What of the file or the pages has it, where that can be several things; empty where it is all. */
  readonly part: string;
  /** How many files or pages it stands for. */
  readonly count: number;
  /** What an average visit would not be sent, in bytes; `null` where the cost is none of bytes, or cannot be known. */
  readonly perVisit: number | null;
  /** What an average visit would be spared, in milliseconds; `null` where the cost is none of time, or cannot be known. */
  readonly timePerVisit: number | null;
}

/** What one check found, before the same faults are put together. */
interface Found extends Omit<SiteFinding, 'count'> {
  readonly key: string;
}

/**
 * The findings on what the pages of a survey are sent besides what images waste, the most costly first. The same fault of
 * several pages of a page group is one.
 */
export function siteFindingsOf(survey: SurveyedSite): SiteFinding[] {
  const { site, services } = openSite(survey);
  const kinds: readonly SiteFindingKind<SiteFindingId, FindingData>[] = siteFindings;
  const found = kinds.flatMap((kind): Found[] => {
    if ('checkFile' in kind)
      return site.files.flatMap((file) => {
        const evidence = kind.checkFile(file, site);
        return evidence ? ofFile(kind.id, evidence, file, survey.groupOf) : [];
      });
    if ('checkPage' in kind)
      return site.pages.flatMap((page) =>
        kind.checkPage(page, site).map((evidence) => ofPage(kind.id, evidence, page)),
      );
    return services.flatMap((service) => {
      const evidence = kind.checkService(service, site);
      const { domain, thirdParty, pages, files } = service;
      if (!evidence) return [];
      // A service is named by what it sends first.
      const { url } = files[0]!.resource;
      const concerned = new Set(evidence.pages ?? []);
      const share = sum(site.pages.map((page) => (concerned.has(page.url) ? page.perVisit : 0)));
      // What is told of all visits together is weighed already.
      const cost = costOf(evidence, evidence.pages ? share : 1);
      const key = `${kind.id} ${domain}`;
      const of = { url, group: null, part: domain, thirdParty, pages: evidence.pages ?? pages };
      return [{ id: kind.id, data: evidence.data, key, ...of, ...cost }];
    });
  });
  const { groupOf, mutes } = survey;
  const isMuted = ({ id, url, pages }: Found) =>
    mutes?.isMuted(id, {
      urls: [url],
      groups: [...new Set(pages.map((page) => groupOf(page) ?? page))],
    });
  const left = found.filter((one) => !isMuted(one));
  return [...groupBy(left, ({ key }) => key).values()].map(together).sort(byCost);
}

function ofFile(
  id: SiteFindingId,
  evidence: SiteEvidence<FindingData>,
  { resource, pages, perVisit }: SentFile,
  groupOf: SurveyedSite['groupOf'],
): Found {
  const { url, type, thirdParty } = resource;
  const group = type === 'html' && pages.includes(url) ? groupOf(url) : null;
  const key = JSON.stringify([id, evidence.together ?? group ?? url]);
  const cost = costOf(evidence, perVisit);
  const part = evidence.together ?? '';
  return { id, data: evidence.data, key, url, group, part, thirdParty, pages, ...cost };
}

function ofPage(
  id: SiteFindingId,
  evidence: SiteEvidence<FindingData>,
  { url, group, perVisit }: SitePage,
): Found {
  const key = JSON.stringify([id, group ?? url, evidence.together ?? '']);
  const cost = costOf(evidence, perVisit);
  const of = { url, group, part: evidence.together ?? '', thirdParty: false, pages: [url] };
  return { id, data: evidence.data, key, ...of, ...cost };
}

function costOf(
  { bytes, time = null }: SiteEvidence<FindingData>,
  perVisit: number,
): Pick<SiteFinding, 'perVisit' | 'timePerVisit'> {
  return {
    perVisit: bytes === null ? null : bytes * perVisit,
    timePerVisit: time === null ? null : time * perVisit,
  };
}

/** Several findings of one kind as one: that which costs the most, for all pages. */
function together(found: readonly Found[]): SiteFinding {
  const [{ key: _, ...worst }] = found.toSorted(byCost) as [Found];
  const total = (cost: 'perVisit' | 'timePerVisit') =>
    worst[cost] === null ? null : found.reduce((all, one) => all + (one[cost] ?? 0), 0);
  return {
    ...worst,
    pages: [...new Set(found.flatMap(({ pages }) => pages))],
    count: found.length,
    perVisit: total('perVisit'),
    timePerVisit: total('timePerVisit'),
  };
}

type Costs = Pick<SiteFinding, 'perVisit' | 'timePerVisit' | 'pages'>;

function byCost(a: Costs, b: Costs): number {
  return (
    (b.perVisit ?? -1) - (a.perVisit ?? -1) ||
    (b.timePerVisit ?? -1) - (a.timePerVisit ?? -1) ||
    b.pages.length - a.pages.length
  );
}
