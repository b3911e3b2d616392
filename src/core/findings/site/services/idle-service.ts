import { sum } from 'simple-statistics';
import { serviceFinding } from '../site-case.js';
import type { SentFile, SiteCase } from '../site-case.js';

/** The part of its scripts that a service must leave unused to seem idle. */
const idleShare = 0.9;

/** A third party that fails, or does nothing that a survey can see. */
export const idleService = serviceFinding({
  id: 'idle-service',
  title: 'third party that nobody may need any more',
  doer: 'markup',
  fix: 'Ask who needs it; if nobody does, remove what loads it.',
  isWork: true,
  docs: {
    meaning:
      'All that a third party answers is errors or nothing; or its scripts come, call hardly anything and ask for nothing more.',
    why: 'Such leftovers of contracts and campaigns cost every visitor, and nobody misses them.',
    computed:
      'By the status of all its responses; or by the browser’s coverage of its scripts (nine tenths and more not called), and by the requests that they made. Where no third party answers at all, none is asked after. It is a question, not a verdict. The cost is all its files on the wire.',
    ignore: 'Where it waits for the visitor: a consent, a click, a date.',
  },
  checkService: ({ domain, thirdParty, files }, site) => {
    if (!thirdParty) return undefined;
    const bytes = sum(files.map(({ resource, perVisit }) => resource.transferBytes * perVisit));
    const failed = files.filter(({ resource: { status } }) => status === 0 || status >= 400);
    const statuses = [...new Set(failed.map(({ resource }) => resource.status))];
    if (failed.length === files.length && !(isCutOff(site) && statuses.every(isNone)))
      return { data: { domain, statuses, unused: null as number | null }, bytes };
    const unused = unusedShare(domain, files, site);
    if (unused === undefined) return undefined;
    return { data: { domain, statuses: [], unused }, bytes };
  },
  step: ({ domain }) => `ask who needs ${domain}; if nobody does, remove what loads it`,
  describe: ({ domain, statuses, unused }) =>
    unused === null
      ? `${domain} answers ${statuses.map((status) => (status === 0 ? 'not at all' : `with ${status}`)).join(', ')}: does anybody still need it?`
      : `${domain} sends scripts of which ${Math.round(100 * unused)} % is never called, and which ask for nothing more: does anybody still need it?`,
});

const isNone = (status: number) => status === 0;

/** Whether no third party answers at all: then it is this machine that has no way to them. */
function isCutOff({ files }: SiteCase): boolean {
  return files.every(({ resource: { thirdParty, status } }) => !thirdParty || isNone(status));
}

/** The part of a service's scripts that is not called, where they are all it sends and ask for nothing. */
function unusedShare(domain: string, files: readonly SentFile[], site: SiteCase) {
  if (files.some(({ resource }) => resource.type !== 'script')) return undefined;
  const isOf = (url: string | null) => url !== null && site.partyOf(url) === domain;
  // What its scripts ask for, or what comes from it by a script's doing, is a sign of life.
  const asks = site.files.some(
    ({ resource: { url, initiatedBy } }) => isOf(initiatedBy) && !isOf(url),
  );
  const usages = files.map(site.usageOf);
  if (asks || usages.some((usage) => usage === undefined)) return undefined;
  const units = sum(usages.map((usage) => usage!.units));
  const share = sum(usages.map((usage) => usage!.unused)) / units;
  return share >= idleShare ? Math.round(share * 100) / 100 : undefined;
}
