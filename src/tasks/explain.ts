import { pageLoadOf } from '../core/rank/page-load.js';
import type { PageLoad } from '../core/rank/page-load.js';
import { pageStoryOf } from '../core/rank/page-story.js';
import type { PageStory } from '../core/rank/page-story.js';
import type { Policy } from '../core/policy/policy.js';
import { rowsOf } from '../core/rank/rank-view.js';
import type { RankResult } from '../core/rank/rank-view.js';
import type { SentFile } from '../core/findings/site/site-case.js';
import type { SiteFinding } from '../core/findings/site/index.js';
import { sparedTime } from '../core/rank/spared-time.js';
import type { SparedTime } from '../core/rank/spared-time.js';
import { findSubject } from '../core/rank/subject.js';
import type { Subject } from '../core/rank/subject.js';
import type { RankedImage } from '../core/rank/ranked-image.js';
import { pictureFinder } from '../core/rank/ranked-picture.js';
import type { RankedPicture } from '../core/rank/ranked-picture.js';
import type { Workspace } from '../store/workspace.js';
import type { TaskOptions } from './progress.js';
import { rank } from './rank.js';
import { findTimedPages } from './timed-pages.js';
import { filesSent, siteFindings } from './site-findings.js';
import type { RankTaskOptions } from './rank.js';

/** The whole story of one image file, of one page, of another file, of the slots of a family, or of all that have a finding. */
export type Explanation =
  | {
      readonly kind: 'image';
      readonly image: RankedImage;
      /** What it shows, with all the files of it. */
      readonly picture: RankedPicture;
      /** Files of other pictures that the same words mean. */
      readonly others: readonly RankedImage[];
      /** What the timed pages that are sent it would be spared; `null` where none was timed. */
      readonly spared: SparedTime | null;
      readonly result: RankResult;
    }
  | {
      readonly kind: 'page';
      readonly story: PageStory;
      /** How it loads; `null` in surveys of older versions. */
      readonly load: PageLoad | null;
      /** The findings on what it is sent besides images. */
      readonly site: readonly SiteFinding[];
      /** What it would be spared if its images weighed what they need; `null` where it was not timed. */
      readonly spared: SparedTime | null;
      readonly result: RankResult;
    }
  | {
      readonly kind: 'file';
      readonly file: SentFile;
      readonly site: readonly SiteFinding[];
      readonly result: RankResult;
    }
  | (Extract<Subject, { kind: 'family' }> & { readonly result: RankResult })
  | (Extract<Subject, { kind: 'finding' }> & {
      /** The other files and pages that have it, the most costly first. */
      readonly site: readonly SiteFinding[];
      readonly result: RankResult;
    });

/**
 * Tells everything that a survey knows of one image or page.
 *
 * @param label the survey; the newest when it is left out
 * @param subject an address, a path, a content hash, a selector, a slot or the id of a finding
 * @throws NotFoundError when there is no such survey, or nothing in it that is meant.
 */
export async function explain(
  workspace: Workspace,
  label: string | undefined,
  subject: string,
  policy: Policy,
  options: Pick<RankTaskOptions, keyof TaskOptions | 'groups'> = {},
): Promise<Explanation> {
  const result = await rank(workspace, label, policy, options);
  const query = { by: 'family', sort: 'waste', top: Infinity, filter: {}, policy } as const;
  const families = () => {
    const { rows, thirdParty } = rowsOf(result, query);
    return [...rows, ...thirdParty];
  };
  let files: readonly SentFile[] = [];
  const addresses = () => {
    files = filesSent(workspace, result);
    return files.map(({ resource }) => resource.url);
  };
  const found = findSubject(subject, result.images, result.pages, families, addresses);
  if (found.kind === 'file') {
    const file = files.find(({ resource }) => resource.url === found.url)!;
    const site = siteFindings(workspace, result).filter(({ url }) => url === found.url);
    return { kind: 'file', file, site, result };
  }
  if (found.kind === 'family') return { ...found, result };
  if (found.kind === 'finding') {
    const site = siteFindings(workspace, result).filter(({ id }) => id === found.id);
    return { ...found, site, result };
  }
  if (found.kind === 'image') {
    const picture = pictureFinder(result.pictures)(found.image);
    const others = found.others.filter((one) => !picture.images.includes(one));
    const timed = findTimedPages(workspace, result);
    const spared = timed ? sparedTime(result, timed, found.image) : null;
    return { ...found, picture, others, spared, result };
  }
  const { page } = found;
  const only = { pages: [page.url] };
  const narrowed = await rank(workspace, label, policy, { ...options, only });
  const placements = [...narrowed.ledger.facts.placements];
  const timed = findTimedPages(workspace, narrowed);
  return {
    kind: 'page',
    story: pageStoryOf(page, narrowed.images, placements, policy),
    load: pageLoadOf(
      workspace.pages.resources(result.survey.id, workspace.texts),
      narrowed.ledger.facts.visits,
      page.url,
    ),
    site: siteFindings(workspace, narrowed),
    spared: timed ? sparedTime(narrowed, timed) : null,
    result: narrowed,
  };
}
