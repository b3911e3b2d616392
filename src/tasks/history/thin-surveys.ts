import type { SurveySummary } from '../../core/survey/survey.js';
import { isAtWorkOnSurveys } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import { siteOf } from './site-of.js';
import { figuresOf } from './survey-numbers.js';
import type { NumbersOptions } from './survey-numbers.js';

export interface ThinOptions extends NumbersOptions {
  /** The newest surveys that stay whole. */
  readonly keep: number;
  /** Labels that stay whole, whatever their age: budgets are set against them. */
  readonly needed: readonly string[];
  /** Only says what would be done. */
  readonly dryRun: boolean;
}

/** What thinning out takes away, or would. */
export interface Thinned {
  readonly surveys: readonly Pick<SurveySummary, 'label' | 'startedAt' | 'pages'>[];
  /** Labels that stay whole because a budget is set against them. */
  readonly needed: readonly string[];
  readonly dryRun: boolean;
  /** Bytes of bodies that only these surveys name. */
  readonly freed: number;
  /** Bytes on disk before, and after; of a dry run what is there now. */
  readonly before: { readonly database: number; readonly bodies: number };
  readonly after: { readonly database: number; readonly bodies: number };
}

/**
 * Takes what old surveys found away, and leaves their figures. Surveys that were interrupted stay as they are.
 *
 * @throws NotFoundError when there is no survey; BusyError while another program is at work.
 */
export async function thinSurveys(workspace: Workspace, options: ThinOptions): Promise<Thinned> {
  const { keep, needed, dryRun, signal } = options;
  const { surveys } = siteOf(workspace);
  const old = surveys.filter(({ thinnedAt }) => thinnedAt === null).slice(0, -keep);
  const due = old.filter(({ label }) => !needed.includes(label));
  const before = await workspace.size();
  const hashes = workspace.surveys.namedByTheseAlone(due.map(({ id }) => id));
  const freed = hashes.reduce((sum, hash) => sum + workspace.bodies.sizeOf(hash), 0);
  const thinned: SurveySummary[] = [];
  if (!dryRun && due.length > 0) workspace.leases.refuse(isAtWorkOnSurveys);
  for (const one of due) {
    if (signal?.aborted) break;
    thinned.push(one);
    if (dryRun) continue;
    // What is taken away can no longer be added up.
    await figuresOf(workspace, one, options);
    for (const hash of workspace.surveys.thin(one.id, workspace.now()))
      await workspace.bodies.delete(hash);
  }
  if (!dryRun && thinned.length > 0) workspace.tidy();
  return {
    surveys: thinned,
    needed: old.filter(({ label }) => needed.includes(label)).map(({ label }) => label),
    ...{ dryRun, freed, before, after: await workspace.size() },
  };
}
