import { hostOf } from '../core/address/address.js';
import { siteFindingsOf } from '../core/findings/site/index.js';
import { sentFiles } from '../core/findings/site/sent-files.js';
import type { SentFile } from '../core/findings/site/site-case.js';
import type { SiteFinding } from '../core/findings/site/index.js';
import { Mutes } from '../core/policy/mutes.js';
import { partyOf } from '../crawl/third-party.js';
import type { SurveyHead } from '../core/survey/survey.js';
import type { Workspace } from '../store/workspace.js';
import type { RankResult } from './rank.js';

/** What is read of a workspace to tell of files that are no images. */
type Kept = Pick<Workspace, 'pages' | 'surveys' | 'texts'>;

/** The findings on how a survey's pages are put together and delivered, in the visits that were ranked. */
export function siteFindings(
  { pages, surveys, texts }: Kept,
  { ledger, pages: ranked, survey }: RankResult,
  mutes = new Mutes(ledger.inputs.policy.mute),
): SiteFinding[] {
  const groups = new Map(ranked.map(({ url, group }) => [url, group]));
  const { facts, weights } = ledger;
  return siteFindingsOf({
    resources: pages.resources(survey.id, texts),
    weighed: { visits: facts.visits, weights },
    images: facts,
    mutes,
    earlier: earlierOf({ pages, surveys, texts }, survey),
    groupOf: (page) => groups.get(page) ?? null,
    servedHere: hostsServedHere(surveys.plan(survey.id).given, survey.starts),
    partyOf,
  });
}

/** The files that a survey's pages are sent besides images, in the visits that were ranked. */
export function filesSent({ pages, texts }: Kept, { ledger, survey }: RankResult): SentFile[] {
  const { facts, weights } = ledger;
  return sentFiles(pages.resources(survey.id, texts), { visits: facts.visits, weights });
}

/** The hosts of folders, which the program serves itself: how it does so is nothing of the site's. */
function hostsServedHere(given: readonly string[], starts: readonly string[]): Set<string> {
  const folders = starts.filter((_, at) => given[at] && !/^https?:/i.test(given[at]));
  return new Set(folders.map(hostOf));
}

/** The survey before a survey of the same site, with what stood at each address. */
function earlierOf({ pages, surveys, texts }: Kept, { id, starts }: SurveyHead) {
  const earlier = surveys
    .list()
    .findLast((one) => one.id < id && one.finishedAt !== null && isSame(one.starts, starts));
  if (!earlier) return undefined;
  const { list } = pages.resources(earlier.id, texts);
  const hashes = new Map(list.map(({ url, contentHash }) => [url, contentHash]));
  return { label: earlier.label, hashes };
}

function isSame(some: readonly string[], others: readonly string[]): boolean {
  return some.length === others.length && some.every((one) => others.includes(one));
}
