import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { compareSessions } from '../../core/load/comparison.js';
import type { SessionComparison } from '../../core/load/comparison.js';
import { ConditionsDifferError, UsageError } from '../../core/base/errors.js';
import { compareLooks } from '../../core/pixels/looks.js';
import type { Looks, Tiles } from '../../core/pixels/looks.js';
import { matchRequests } from '../../core/load/request-matching.js';
import type { RequestChange } from '../../core/load/request-matching.js';
import { countedRuns, medianRun } from '../../core/load/session.js';
import type { Session } from '../../core/load/session.js';
import type { Workspace } from '../../store/workspace.js';
import { pictureFile } from './picture-file.js';
import { readHarFile } from './read-har.js';

/** One page before and after. */
export interface ComparedPage {
  readonly before: Session;
  readonly after: Session;
  readonly comparison: SessionComparison;
  /** What became of each request, from the median run of one side to that of the other. */
  readonly requests: readonly RequestChange[];
  /** Whether it still looks the same; `null` where there is no picture of both sides. */
  readonly looks: ComparedLooks | null;
  /** What a trial had measured of the same page; `null` where none was named. */
  readonly tried: SessionComparison | null;
}

/** How similar a page looks before and after, with the pictures (PNG files) that show it. */
export interface ComparedLooks extends Looks {
  readonly pictures: { readonly before: Buffer; readonly after: Buffer };
}

/**
 * Sets the sessions of two labels, or two HAR files, against each other, page by page.
 *
 * @param workspace opened only where a label is to be found
 * @param anyway compares sessions whose conditions differ, too
 * @param tried label of a trial whose changes are set beside those of the same pages
 * @throws NotFoundError when a label is not known; UsageError when they have no page in common, or none with the trial;
 *   ConditionsDifferError when their conditions differ.
 */
export async function compare(
  workspace: () => Workspace,
  before: string,
  after: string,
  anyway: boolean,
  tried?: string,
): Promise<ComparedPage[]> {
  const sessionsOf = async (name: string) => {
    const sessions = isHar(name)
      ? (await readHarFile(name)).sessions
      : workspace().sessions.find(name);
    return counted(sessions, name);
  };
  const one = await sessionsOf(before);
  const other = await sessionsOf(after);
  const pairs = pairUp(one, other);
  if (pairs.length === 0)
    throw new UsageError(`${before} and ${after} have no page in common`, {
      hint: `${before}: ${pagesOf(one)}; ${after}: ${pagesOf(other)}`,
    });
  const compared: ComparedPage[] = [];
  for (const [first, second] of pairs)
    compared.push(
      await comparedPage(isHar(before) || isHar(after) ? null : workspace(), first, second),
    );
  const differing = compared[0]!.comparison.differingConditions;
  if (differing.length > 0 && !anyway)
    throw new ConditionsDifferError(
      `${before} and ${after} were not measured under the same conditions: ` +
        differing.map((each) => `${each.condition} ${each.before} / ${each.after}`).join('; '),
      { hint: 'run clock again for one of them, or compare them with --anyway' },
    );
  return tried === undefined ? compared : withTrial(workspace(), compared, tried);
}

/** Sets what a trial had measured beside what was measured since. */
function withTrial(
  { sessions }: Workspace,
  compared: readonly ComparedPage[],
  label: string,
): ComparedPage[] {
  const sideOf = (side: string, of: Session) => {
    const names = sessions.labels().filter((name) => isOfTrial(name, label, side));
    return names.flatMap((name) => sessions.find(name)).find((one) => isSamePage(one, of));
  };
  const pages = compared.map((page) => {
    const [before, after] = [sideOf('before', page.before), sideOf('after', page.before)];
    return { ...page, tried: before && after ? compareSessions(before, after) : null };
  });
  if (pages.some((page) => page.tried !== null)) return pages;
  throw new UsageError(
    `there is no trial ${label} of ${pagesOf(compared.map(({ before }) => before))}`,
    {
      hint: 'name the --label of a trial; surveys lists the sessions that it has left',
    },
  );
}

/** Whether a label is that of one side of a trial; a trial of several pages numbers theirs. */
function isOfTrial(name: string, label: string, side: string): boolean {
  return (
    name.startsWith(`${label}-`) &&
    /^(?:\d+-)?(\w+)$/.exec(name.slice(label.length + 1))?.[1] === side
  );
}

function isSamePage(one: Session, other: Session): boolean {
  return one.page === other.page && cacheOf(one) === cacheOf(other);
}

function cacheOf({ conditions }: Session) {
  return conditions?.cache ?? 'cold';
}

/** One page before and after; of a workspace, with what it looks like. */
export async function comparedPage(
  workspace: Workspace | null,
  before: Session,
  after: Session,
): Promise<ComparedPage> {
  return {
    ...{ before, after },
    comparison: compareSessions(before, after),
    requests: matchRequests(medianRun(before), medianRun(after)),
    looks: workspace && (await looksOf(workspace, before, after)),
    tried: null,
  };
}

async function looksOf(
  workspace: Workspace,
  before: Session,
  after: Session,
): Promise<ComparedLooks | null> {
  const files = [before, after].map((session) => pictureFile(workspace, session));
  if (!files.every((file) => existsSync(file))) return null;
  const { readLuma } = await import('../../images/picture.js');
  const [was, is] = await Promise.all(files.map((file) => readFile(file)));
  const [first, second] = [await readLuma(was!, 1), await readLuma(is!, 1)];
  const restless: Tiles[] = [];
  for (const [session, picture] of [
    [before, first],
    [after, second],
  ] as const) {
    const again = pictureFile(workspace, session, 2);
    if (existsSync(again))
      restless.push(compareLooks(picture, await readLuma(await readFile(again), 1)).tiles);
  }
  const looks = compareLooks(first, second, restless);
  return { ...looks, pictures: { before: was!, after: is! } };
}

/** Whether a name is that of a HAR file, and not the label of a session. */
function isHar(name: string): boolean {
  return /\.har$/i.test(name);
}

function counted(sessions: readonly Session[], label: string): Session[] {
  const usable = sessions.filter((session) => countedRuns(session).length > 0);
  if (usable.length === 0)
    throw new UsageError(`no load of ${label} succeeded: there is nothing to compare`, {
      hint: 'run clock again',
    });
  return usable;
}

/** Sessions of the same page and cache; two single pages are a pair whatever their addresses. */
function pairUp(one: readonly Session[], other: readonly Session[]): [Session, Session][] {
  if (one.length === 1 && other.length === 1) return [[one[0]!, other[0]!]];
  const single = [one, other].every((side) => new Set(side.map(({ page }) => page)).size === 1);
  return one.flatMap((session) => {
    const match = other.find(
      (each) => (single || each.page === session.page) && cacheOf(each) === cacheOf(session),
    );
    return match ? ([[session, match]] as [Session, Session][]) : [];
  });
}

function pagesOf(sessions: readonly Session[]): string {
  return sessions.map(({ page }) => page).join(', ');
}
