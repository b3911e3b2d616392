import { hostOf } from '../core/address/address.js';
import { siteFindingsOf } from '../core/findings/site/index.js';
import { sentFiles } from '../core/findings/site/sent-files.js';
import type { SentFile } from '../core/findings/site/site-case.js';
import type { SiteFinding } from '../core/findings/site/index.js';
import type { Workspace } from '../store/workspace.js';
import type { RankResult } from './rank.js';

/** What is read of a workspace to tell of files that are no images. */
type Kept = Pick<Workspace, 'pages' | 'surveys' | 'texts'>;

/** The findings on the files that a survey's pages are sent besides images, in the visits that were ranked. */
export function siteFindings(
  { pages, surveys, texts }: Kept,
  { ledger, pages: ranked, survey }: RankResult,
): SiteFinding[] {
  const groups = new Map(ranked.map(({ url, group }) => [url, group]));
  const { facts, weights } = ledger;
  return siteFindingsOf(
    pages.resources(survey.id, texts),
    { visits: facts.visits, weights },
    (page) => groups.get(page) ?? null,
    hostsServedHere(surveys.plan(survey.id).given, survey.starts),
  );
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
