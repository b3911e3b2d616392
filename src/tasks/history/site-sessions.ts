import { countedRuns } from '../../core/load/session.js';
import type { MarkedSession } from '../../core/load/marked-session.js';
import type { Workspace } from '../../store/workspace.js';
import { isOfSite } from './site-of.js';
import type { SurveyedSite } from './site-of.js';

/** The most trials whose loads are told from those of the site. */
const mostTrials = 1_000;

/** The sessions of a site's pages of which any run counts, the oldest first; what trials loaded is no state of the site. */
export function siteSessions(
  { sessions, trials }: Pick<Workspace, 'sessions' | 'trials'>,
  site: SurveyedSite,
): MarkedSession[] {
  const tried = trials.list(mostTrials).map(({ label }) => `${label}-`);
  return sessions
    .marked(isOfSite(site))
    .filter(
      (session) =>
        countedRuns(session).length > 0 && !tried.some((trial) => session.label.startsWith(trial)),
    );
}
