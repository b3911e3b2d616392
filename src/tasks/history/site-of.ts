import { hostOf } from '../../core/address/address.js';
import { NotFoundError } from '../../core/base/errors.js';
import { hasFailed } from '../../core/survey/failed-survey.js';
import type { SurveySummary } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';

/** A site in a workspace: the hosts of its starts, and its surveys that came to their end and reached a page. */
export interface SurveyedSite {
  readonly hosts: readonly string[];
  /** The oldest first. */
  readonly surveys: readonly SurveySummary[];
  /** Surveys of it that say nothing: interrupted, or without any page. */
  readonly leftOut: readonly SurveySummary[];
}

/**
 * The site that a workspace is asked about.
 *
 * @param host one of its hosts; the site of the newest survey if it is left out
 * @throws NotFoundError when there is no survey, or none of that host.
 */
export function siteOf({ surveys, pages }: Workspace, host?: string): SurveyedSite {
  const all = surveys.list();
  const named =
    host === undefined ? all.at(-1) : all.findLast((one) => hostsOf(one).includes(host));
  if (!named) {
    const known = [...new Set(all.flatMap(hostsOf))];
    throw new NotFoundError(
      host === undefined ? 'there is no survey yet' : `no survey of ${host} is kept here`,
      {
        hint: known.length > 0 ? `there are: ${known.join(', ')}` : 'run zealous-lynx survey first',
      },
    );
  }
  const hosts = hostsOf(named);
  const ofSite = all.filter((one) => sameHosts(hostsOf(one), hosts));
  const says = (one: SurveySummary) =>
    one.thinnedAt !== null || (one.finishedAt !== null && !hasFailed(pages.list(one.id)));
  return {
    hosts,
    surveys: ofSite.filter(says),
    leftOut: ofSite.filter((one) => !says(one)),
  };
}

/** Whether the address of a page is of a site. */
export function isOfSite({ hosts }: Pick<SurveyedSite, 'hosts'>): (page: string) => boolean {
  return (page) => hosts.includes(hostOf(page));
}

function hostsOf({ starts }: Pick<SurveySummary, 'starts'>): string[] {
  return [...new Set(starts.map(hostOf))].sort();
}

function sameHosts(some: readonly string[], others: readonly string[]): boolean {
  return some.length === others.length && some.every((host, at) => host === others[at]);
}
