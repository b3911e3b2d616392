import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import type { Visit } from '../../browser/visit/visit-result.js';
import type { LimitFunction } from 'p-limit';
import { pause, retryAfterOf } from '../../crawl/pacer.js';
import type { Pacer } from '../../crawl/pacer.js';
import type { Trace } from '../progress.js';

/** Manners towards servers. */
export interface Manners {
  readonly pacer: Pacer;
  /** The most retries of a page that failed but may succeed next time. */
  readonly retries: number;
  readonly signal: AbortSignal | undefined;
  readonly onTrace: Trace;
  /** Bounds how many pages are loaded at the same time, views counted one by one. */
  readonly limit: LimitFunction;
}

/** Milliseconds before the first time that a page is asked for again; each time twice as long. */
const firstPause = 1_000;

/** The longest pause that is kept at the request of a server. */
const longestRest = 120_000;

export interface VisitPageOptions {
  /** Whether a visit shows that the address is no page of the survey: then it is left. */
  readonly isNone: (visit: Visit) => boolean;
  /** Begins the other views as soon as the server has answered in the first: nothing else is waiting for its turn. */
  readonly hurry: boolean;
  /** Told of each visit as soon as it is made. */
  readonly onVisit: (visit: Visit) => void;
}

/**
 * Visits a page in every view, at the pace that was agreed on: in one view, then in the others side by side. What
 * fails for a moment is asked for again, later each time, and when the server wants it. A page that fails in its first
 * view is not loaded in the others: they would say the same.
 */
export async function visitPage(
  { views, first, limit }: PageVisitor,
  url: string,
  common: Manners,
  { isNone, hurry, onVisit }: VisitPageOptions,
): Promise<Visit[]> {
  const manners = limit ? { ...common, limit } : common;
  let rest: Promise<Visit[]> | undefined;
  const visitIn = async (view: number, onAnswered?: () => void) => {
    // Where nothing else is waiting, tabs are left when there is something else.
    const manner = { onAnswered, mayBeLast: hurry };
    const visit = await visitPatiently(() => views[view]!.visit(url, manner), url, manners);
    onVisit(visit);
    return visit;
  };
  const others = [...views.keys()].filter((view) => view !== first);
  const visitOthers = () => (rest ??= Promise.all(others.map((view) => visitIn(view))));
  if (hurry) for (const view of others) views[view]!.prepare?.();
  const visit = await visitIn(first, hurry ? () => void visitOthers() : undefined);
  if ((visit.error !== null && failsEverywhere(visit)) || isNone(visit)) {
    await rest;
    return [visit];
  }
  // In the order of the views.
  const visits = (await visitOthers()).toSpliced(first, 0, visit);
  // Where the first view could not be measured, another one shows what the page is.
  visits.some(isNone);
  return visits;
}

async function visitPatiently(
  visit: () => Promise<Visit>,
  url: string,
  { pacer, retries, signal, onTrace, limit }: Manners,
): Promise<Visit> {
  for (let attempt = 0; ; attempt++) {
    const result = await limit(async () => {
      await pacer.turn(url, signal);
      return visit();
    });
    if (!result.passing || signal?.aborted) return result;
    const asked = retryAfterOf(result.passing.retryAfter, Date.now());
    const rest = asked ?? firstPause * 2 ** attempt;
    if (rest > longestRest)
      return {
        ...result,
        error: `${result.error}, and asks not to be visited for ${inWords(rest)}`,
      };
    onTrace('page failed for the moment', { url, view: result.view, error: result.error, rest });
    const most = result.passing.isOnce ? Math.min(1, retries) : retries;
    if (attempt >= most) return { ...result, error: afterRetries(result.error, attempt) };
    // What one page is told holds for its server: the others wait as well.
    if (asked === null) await pause(rest, signal);
    else pacer.leaveAlone(url, rest);
  }
}

function afterRetries(error: string | null, retries: number): string | null {
  if (retries === 0) return error;
  return `${error}, ${retries === 1 ? 'twice' : `${retries + 1} times`}`;
}

function inWords(milliseconds: number): string {
  const seconds = Math.ceil(milliseconds / 1000);
  return seconds < 180 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`;
}

/** Whether the server caused it, rather than the page in one view. */
function failsEverywhere({ status, mediaType }: Visit): boolean {
  return status === null || status >= 400 || !/html|xml/.test(mediaType);
}
