import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import type { Visit } from '../../browser/visit/visit-result.js';
import type { Frontier } from '../../crawl/frontier.js';
import { pause } from '../../crawl/pacer.js';
import { isThirdParty } from '../../crawl/third-party.js';
import { groupPages } from '../../core/survey/page-groups.js';
import { noSketch } from '../../core/survey/document-sketch.js';
import type { SketchedPage } from '../../core/survey/document-sketch.js';
import type { NamingFile, PictureUse } from '../../core/survey/picture-use.js';
import { noBytes, totalBytes } from '../../core/load/request.js';
import type { BytesByType } from '../../core/load/request.js';
import type { DuePage } from '../../core/survey/survey.js';
import type { PageRecord } from '../../store/page-writer.js';
import type { Found } from '../../store/pages.js';
import { collectGarbage } from './collect-garbage.js';
import type { TaskOptions } from '../progress.js';
import { visitPage } from './visit-page.js';
import type { Manners } from './visit-page.js';

export interface CrawlOptions extends Manners {
  readonly onProgress: NonNullable<TaskOptions['onProgress']>;
  /** Stores a page and what was found on it, in one transaction. */
  readonly keep: (record: PageRecord, found: Found) => Promise<void>;
  /** Told of each visit of a page as soon as it is made. */
  readonly onVisit: (url: string, visit: Visit) => void;
  /** The pictures that files name to which a page points, and no page before it. */
  readonly namedFirst: (
    page: string,
    files: readonly NamingFile[],
  ) => Promise<readonly Omit<PictureUse, 'page'>[]>;
  /** Stores what was found if there is no page to store. */
  readonly keepFound: (found: Found) => void;
  /** Why a page must not be visited; absent if it may. */
  readonly refusal: (url: string) => Promise<string | undefined>;
  /** Pages that were visited before this run. */
  readonly visited: number;
}

/** The number of pages after which their garbage is collected; that takes some hundredths of a second. */
const pagesPerCollection = 25;

/** Milliseconds between two looks whether a visitor takes a page. */
const roomBeat = 300;

/**
 * Visits what the frontier hands out, with all visitors at once. Each page is kept together with the
 * links that were found on it: whenever the crawl is stopped, nothing is half known.
 */
export async function crawl(
  frontier: Frontier,
  visitors: readonly PageVisitor[],
  { onProgress, keep, onVisit, namedFirst, keepFound, refusal, visited, ...manners }: CrawlOptions,
): Promise<void> {
  const { signal, onTrace } = manners;
  const wake = new Set<() => void>();
  let busy = 0;
  let done = visited;
  let learnt = 4;
  const sketches: SketchedPage[] = [];
  /** Something of our own went wrong: nothing is stored any more. */
  let isBroken = false;
  const trace = (skipped: Found['skipped']) => {
    for (const { url, reason } of skipped) onTrace('skipped', { url, reason });
  };
  const skip = (url: string, reason: string) => {
    const { due, skipped } = frontier.takeFound();
    trace(skipped);
    onTrace('skipped', { url, reason });
    keepFound({ due, skipped: [...skipped, { url, reason }] });
    frontier.forgo();
  };
  const take = async (visitor: PageVisitor, due: DuePage) => {
    onProgress({ stage: 'pages', done, total: done + busy + frontier.waiting, doing: due.url });
    const refused = await refusal(due.url);
    if (refused !== undefined) return skip(due.url, refused);
    let verdict: Verdict | undefined;
    const isNone = (visit: Visit) => {
      if (visit.error === null) verdict ??= judge(due, visit, frontier);
      return verdict?.reason !== undefined;
    };
    const hurry = due.depth === 0 && busy === 1 && frontier.waiting === 0;
    const visits = await visitPage(visitor, due.url, manners, {
      ...{ isNone, hurry },
      onVisit: (visit) => onVisit(due.url, visit),
    });
    // What the closing of the browser does to a page is not the page's doing.
    if (signal?.aborted || isBroken) return;
    const { reason, isTwin } = verdict ?? noVerdict;
    // The links of a document that was there before are known.
    for (const { links, ownLinks } of isTwin ? [] : visits) {
      frontier.add(links, due.depth + 1);
      frontier.pass(ownLinks, 'a link to the page itself that asks not to be followed (nofollow)');
    }
    for (const { url, reason: why } of visits.flatMap(({ stopped }) => stopped))
      frontier.pass([url], `not loaded: ${why}`);
    if (reason !== undefined) return skip(due.url, reason);
    const good = visits.find(({ error }) => error === null);
    const named = good ? await namedFirst(good.finalUrl, good.namingFiles) : [];
    const record = recordOf(due, visits, named);
    const found = frontier.takeFound();
    const { status, error } = record.page;
    onTrace('surveyed', { url: due.url, status, error, views: visits.length });
    trace(found.skipped);
    await keep(record, found);
    done++;
    sketches.push({ url: due.url, sketch: record.shape });
    if (frontier.isScarce && sketches.length >= learnt * 1.25) {
      learnt = sketches.length;
      frontier.learnGroups(groupPages(sketches));
    }
    if (done % pagesPerCollection === 0) collectGarbage();
  };
  const woken = () => new Promise<void>((resume) => wake.add(resume));
  const work = async (visitor: PageVisitor) => {
    while (!signal?.aborted && !isBroken) {
      const hasRoom = visitor.hasRoom?.() ?? true;
      const due = hasRoom ? frontier.next() : undefined;
      if (due) {
        busy++;
        visitor.onPage?.(1);
        await take(visitor, due)
          .catch((error: unknown) => {
            isBroken = true;
            throw error;
          })
          .finally(() => {
            busy--;
            visitor.onPage?.(-1);
          });
        for (const resume of wake) resume();
        wake.clear();
      } else if (busy === 0 && (hasRoom || frontier.waiting === 0)) return;
      else await (hasRoom ? woken() : pause(roomBeat));
    }
  };
  keepFound(frontier.takeFound());
  await Promise.all(visitors.map(work));
  if (!signal?.aborted) keepFound({ due: [], skipped: frontier.leftOut });
  onProgress({ stage: 'pages', done, total: done, doing: '' });
}

/** Whether an address that was visited is a page of the survey. */
interface Verdict {
  /** Why it is none, in words; absent if it is one. */
  readonly reason?: string | undefined;
  /** Whether its document was there before, under another address. */
  readonly isTwin: boolean;
}

const noVerdict: Verdict = { isTwin: false };

/** Judges an address by the first view that shows it; the frontier learns where it led. */
function judge(due: DuePage, visit: Visit, frontier: Frontier): Verdict {
  const reason = reasonAgainst(due, visit, frontier);
  if (reason !== undefined) return { reason, isTwin: false };
  const twin = frontier.twinOf(due, visit.digest);
  if (twin === undefined) return noVerdict;
  return { reason: `shows the same document as ${twin}`, isTwin: true };
}

/** Why an address that was visited is not a page of this survey, in words; absent if it is one. */
function reasonAgainst(due: DuePage, good: Visit, frontier: Frontier): string | undefined {
  const finalUrl = frontier.formOf(good.finalUrl) ?? good.finalUrl;
  if (finalUrl !== due.url) {
    if (!frontier.inScope(finalUrl)) {
      // A person who names `a.test` may mean `www.a.test`.
      if (due.depth > 0) return `redirects to another site: ${finalUrl}`;
      frontier.widen(finalUrl);
    }
    if (!frontier.reached(finalUrl)) return `redirects to ${finalUrl}, which is surveyed anyway`;
  }
  const { canonical } = good;
  if (canonical && frontier.formOf(canonical) !== finalUrl && frontier.fold(due, canonical))
    return `its canonical address is ${canonical}`;
  return undefined;
}

function recordOf(
  due: DuePage,
  visits: readonly Visit[],
  named: readonly Omit<PictureUse, 'page'>[],
): PageRecord {
  const good = visits.find(({ error }) => error === null);
  const told = good ?? visits[0];
  const finalUrl = told?.finalUrl ?? due.url;
  const problems = visits.flatMap(({ view, error, warning }) => {
    const words = error ?? warning;
    return words === null ? [] : { view, words };
  });
  return {
    page: {
      url: due.url,
      finalUrl,
      status: told?.status ?? null,
      depth: due.depth,
      visits: due.visits,
      group: null,
      error: problemWords(problems, visits.length),
      bytesByType: heaviest(visits),
    },
    visits: visits.map(({ view, placements, images, uses, resources, load, screen }, index) => ({
      view,
      placements,
      uses: index === 0 ? [...uses, ...named] : uses,
      responses: images.map((image) => ({
        ...image,
        thirdParty: isThirdParty(image.url, finalUrl),
      })),
      resources: resources.map((resource) => ({
        ...resource,
        thirdParty: isThirdParty(resource.url, finalUrl),
      })),
      load,
      screen,
    })),
    curves: visits.flatMap(({ curves }) => curves),
    shape: good?.shape ?? noSketch,
    document: good?.digest ?? '',
  };
}

/** The problems of a page's visits, each once, with its view where it is not the same in all. */
function problemWords(
  problems: readonly { view: string; words: string }[],
  visits: number,
): string | null {
  if (problems.length === 0) return null;
  const different = new Set(problems.map(({ words }) => words));
  if (different.size === 1 && problems.length === visits) return problems[0]!.words;
  return problems.map(({ view, words }) => `${view}: ${words}`).join('; ');
}

function heaviest(visits: readonly Visit[]): BytesByType {
  return visits.reduce<BytesByType>(
    (most, { bytesByType }) => (totalBytes(bytesByType) > totalBytes(most) ? bytesByType : most),
    noBytes(),
  );
}
