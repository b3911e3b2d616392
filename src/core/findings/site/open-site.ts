import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { charactersOf } from '../../survey/font-characters.js';
import type { LoadFacts } from '../../survey/load-facts.js';
import type { Resources } from '../../survey/resource.js';
import type { Mutes } from '../../policy/mutes.js';
import { builtInNetworks } from '../../visitors/network.js';
import { sentFiles } from './sent-files.js';
import type { SentImages, WeighedVisits } from './sent-files.js';
import type { SentFile, SiteCase, SitePage, SiteService } from './site-case.js';
import { usageOf } from './text-usage.js';
import type { GroupedLoad, TextUsage } from './text-usage.js';

/** A survey as far as it bears on how its pages are put together and delivered. */
export interface SurveyedSite {
  readonly resources: Resources;
  readonly weighed: WeighedVisits;
  readonly images?: SentImages | undefined;
  /** The page group of a page. */
  readonly groupOf: (page: string) => string | null;
  /** An earlier survey of the site, with the contents of its files by their addresses. */
  readonly earlier?:
    { readonly label: string; readonly hashes: ReadonlyMap<string, string | null> } | undefined;
  /** The findings that are none for the site. */
  readonly mutes?: Mutes | undefined;
  /** Hosts that the program itself serves from a folder. */
  readonly servedHere?: ReadonlySet<string> | undefined;
  /** The registrable domain of an address. */
  readonly partyOf?: ((url: string) => string) | undefined;
}

/** The line that round trips are counted on: that of a phone in a town. */
const network = builtInNetworks.find(({ name }) => name === 'mobile')!;

/** A survey made ready for the checks of findings. */
export interface OpenSite {
  readonly site: SiteCase;
  readonly services: readonly SiteService[];
}

export function openSite(survey: SurveyedSite): OpenSite {
  const { resources, weighed, images, groupOf, servedHere = new Set(), partyOf = hostOf } = survey;
  const { earlier } = survey;
  const files = sentFiles(resources, weighed, images);
  const loadAt = (visit: number): LoadFacts | null => resources.loads[visit] ?? null;
  const grouped = (visit: number): GroupedLoad[] => {
    const load = loadAt(visit);
    const { page } = weighed.visits[visit]!;
    return load ? [{ group: groupOf(page) ?? page, load }] : [];
  };
  const usages = new Map<string, TextUsage | undefined>();
  const characters = charactersOf(resources);
  const withContent = files.filter(({ resource }) => resource.contentHash !== null);
  const site: SiteCase = {
    files,
    pages: pagesOf(files, survey),
    sameContent: groupBy(
      withContent.toSorted((a, b) => b.perVisit - a.perVisit),
      ({ resource }) => resource.contentHash!,
    ),
    servedHere,
    usageOf: (file) => {
      const { url, type } = file.resource;
      if (!file.text || (type !== 'style' && type !== 'script')) return undefined;
      if (!usages.has(url)) usages.set(url, usageOf(file.text, file.visits.flatMap(grouped), type));
      return usages.get(url);
    },
    loadsOf: (file) => file.visits.flatMap((visit) => loadAt(visit) ?? []),
    charactersOf: (contentHash) => characters.get(contentHash) ?? '',
    sameIn: ({ url, contentHash }) =>
      contentHash !== null && earlier?.hashes.get(url) === contentHash ? earlier.label : null,
    network,
    partyOf,
  };
  const byDomain = groupBy(files, ({ resource }) => partyOf(resource.url));
  const services = [...byDomain].map(([domain, some]) => ({
    domain,
    thirdParty: some.every(({ resource }) => resource.thirdParty),
    files: some,
    pages: [...new Set(some.flatMap(({ pages }) => pages))],
  }));
  return { site, services };
}

function pagesOf(
  files: readonly SentFile[],
  { resources, weighed: { visits, weights }, groupOf }: SurveyedSite,
): SitePage[] {
  const pages = new Map<
    string,
    SitePage & { perVisit: number; loads: LoadFacts[]; files: SentFile[] }
  >();
  visits.forEach(({ page: url, measured }, visit) => {
    if (!measured || !(weights[visit]! > 0)) return;
    const page = pages.get(url) ?? { url, group: groupOf(url), perVisit: 0, loads: [], files: [] };
    pages.set(url, page);
    page.perVisit += weights[visit]!;
    const load = resources.loads[visit];
    if (load) page.loads.push(load);
  });
  for (const file of files) for (const url of file.pages) pages.get(url)?.files.push(file);
  return [...pages.values()];
}
