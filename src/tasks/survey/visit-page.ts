import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import type { Visit } from '../../browser/visit/visit.js';
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
}

/** Milliseconds before the first time that a page is asked for again; each time twice as long. */
const firstPause = 1_000;

/** The longest pause that is kept at the request of a server. */
const longestRest = 120_000;

/**
 * Visits a page in every view, at the pace that was agreed on. What fails for a moment is asked for
 * again, later each time, and when the server wants it. A page that fails in its first view is not
 * loaded in the others: they would say the same.
 *
 * @param isNone whether a visit shows that the address is no page of the survey: then it is left
 */
export async function visitPage(
  visitor: PageVisitor,
  url: string,
  manners: Manners,
  isNone: (visit: Visit) => boolean = () => false,
): Promise<Visit[]> {
  const visits: Visit[] = [];
  for (const view of visitor.views) {
    const visit = await visitPatiently(() => view.visit(url), url, manners);
    visits.push(visit);
    if (visits.length === 1 && visit.error !== null && failsEverywhere(visit)) break;
    if (isNone(visit)) break;
  }
  return visits;
}

async function visitPatiently(
  visit: () => Promise<Visit>,
  url: string,
  { pacer, retries, signal, onTrace }: Manners,
): Promise<Visit> {
  for (let attempt = 0; ; attempt++) {
    await pacer.turn(url, signal);
    const result = await visit();
    if (!result.passing || signal?.aborted) return result;
    const asked = retryAfterOf(result.passing.retryAfter, Date.now());
    const rest = asked ?? firstPause * 2 ** attempt;
    if (rest > longestRest)
      return {
        ...result,
        error: `${result.error}, and asks not to be visited for ${inWords(rest)}`,
      };
    onTrace('page failed for the moment', { url, view: result.view, error: result.error, rest });
    if (attempt >= retries) return { ...result, error: afterRetries(result.error, attempt) };
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
