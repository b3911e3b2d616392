import { loadFindingsOf } from '../../core/findings/load/index.js';
import { countedRuns, medianRun, summariseSession } from '../../core/load/session.js';
import type { Session } from '../../core/load/session.js';
import type { ClockedPage } from '../../output/views/clock.js';
import type { Workspace } from '../../store/workspace.js';
import { compare } from '../clock/compare.js';
import type { ComparedPage } from '../clock/compare.js';

/** The most sessions that a report draws. */
const maxSessions = 24;
/** The most labels that are looked through for them, the newest first. */
const maxLabels = 40;

/** The newest sessions of the pages that a report is about, the newest last. */
export function sessionsOf(
  { sessions, films }: Workspace,
  pages: ReadonlySet<string>,
): ClockedPage[] {
  const found: Session[] = [];
  for (const label of sessions.labels().slice(-maxLabels).reverse()) {
    const usable = sessions
      .find(label)
      .filter((session) => pages.has(session.page) && countedRuns(session).length > 0);
    if (found.length + usable.length > maxSessions) break;
    found.push(...usable);
  }
  return found.reverse().map((session) => {
    const run = medianRun(session);
    return {
      ...{ session, summary: summariseSession(session), medianRun: run, harFile: '' },
      findings: session.conditions ? loadFindingsOf(run, session.conditions.network) : [],
      film: films.of(session.id),
    };
  });
}

/** Labels that say of themselves that they belong together: `before` and `after`, `trial-1-before` and `trial-1-after`. */
export function pairsOf(labels: readonly string[]): [before: string, after: string][] {
  return labels.flatMap((label): [string, string][] => {
    const [, stem] = /^(.*)before$/.exec(label) ?? [];
    const after = `${stem}after`;
    return stem !== undefined && labels.includes(after) ? [[label, after]] : [];
  });
}

/** Sessions before and after, as far as they can be set against each other. */
export async function comparisonsOf(
  workspace: Workspace,
  pairs: readonly (readonly [before: string, after: string])[],
  pages: ReadonlySet<string>,
): Promise<ComparedPage[]> {
  const compared: ComparedPage[] = [];
  for (const [before, after] of pairs) {
    try {
      const found = await compare(() => workspace, before, after, true);
      compared.push(...found.filter((page) => pages.has(page.before.page)));
    } catch {
      // Labels of other pages, or of loads that all failed.
    }
  }
  return compared;
}
