import { InterruptedError } from '../../core/base/errors.js';
import { elementImages } from '../../core/refit/element-images.js';
import { familyWidths } from '../../core/rank/family-widths.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { planRefit } from '../../core/refit/refit-plan.js';
import { sourcesOfSurvey } from '../../core/refit/survey-sources.js';
import { snippetsOf } from '../../core/refit/snippet.js';
import { worklistOf } from '../../core/refit/worklist.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { rewritesDocument } from '../../output/json/rewrites.js';
import { snippetsDocument } from '../../output/json/snippets.js';
import { snippetsMarkdown } from '../../output/markdown/snippets.js';
import { worklistCsv } from '../../output/csv/worklist.js';
import { worklistMarkdown } from '../../output/markdown/worklist.js';
import { findingWords } from '../../output/words/findings.js';
import type { Workspace } from '../../store/workspace.js';
import { fetchBodies } from './fetch-bodies.js';
import { makeFiles } from './make-files.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';
import type { RankResult } from '../rank.js';
import { wishesFor } from './refit-wishes.js';
import type { NameablePicture, RefitWishes } from './refit-wishes.js';
import { reviewRefit } from './review-refit.js';
import { makeSheets } from './make-sheets.js';
import { writeRefit } from './write-refit.js';
import type { RefitResult } from './write-refit.js';

export interface RefitOptions extends TaskOptions, RefitWishes {
  /** Makes everything and writes none of it. */
  readonly dryRun?: boolean;
  /** The number of images shown beside their originals, the largest saving first. */
  readonly review?: number;
  /** Page groups, or addresses of pages, whose small images are joined into one sheet each. */
  readonly sheets?: readonly string[];
  /** Requests images whose bodies the survey did not store. */
  readonly fetch?: (url: string) => Promise<FetchedFile>;
}

/** The default number of images shown beside their originals. */
export const usualReview = 24;

/**
 * Writes the right-sized files of a survey into a folder, in the folder structure of the originals, with a work list,
 * snippets and a map of addresses beside them.
 *
 * @throws OutputError as `writeRefit`; UsageError for a wish that cannot be; InterruptedError when it was stopped before
 *   anything was written.
 */
export async function refit(
  workspace: Workspace,
  label: string | undefined,
  folder: string,
  policy: Policy,
  options: RefitOptions = {},
): Promise<RefitResult> {
  const { fetch, dryRun = false, review = usualReview } = options;
  const head = workspace.surveys.find(label);
  const reasons = fetch ? await fetchBodies(workspace, head, fetch, options) : new Map();
  const ranking = await rank(workspace, head.label, policy, options);
  refuseStopped(options);
  const elements = elementImages(ranking.images, densitiesOf(ranking), policy);
  const { sources, originals } = sourcesOfSurvey(ranking.images, {
    ...{ widthsOf: familyWidths(ranking, policy.widths), elements, reasons },
  });
  const writing = wishesFor(nameable(ranking.images), options, policy);
  const plan = planRefit(sources, originals, writing);
  const read = (hash: string) => workspace.bodies.read(hash);
  const { sheets, files } = await makeSheets(ranking, options.sheets ?? [], read);
  const { jobs, notMade } = await makeFiles(workspace, plan.jobs, policy, read, options);
  refuseStopped(options);
  const groups = new Map(ranking.pages.map(({ url, group }) => [url, group]));
  const snippets = jobs.flatMap((job) => snippetsOf(job.source.ranked, job, { groups, elements }));
  const worklist = worklistOf(ranking.images, jobs, policy, findingWords);
  const shown = dryRun
    ? []
    : jobs.toSorted((a, b) => savedBy(b.source.ranked) - savedBy(a.source.ranked));
  const work = {
    ...{ survey: ranking.survey.label, jobs, kept: plan.kept, notMade, worklist, sheets },
    sheetFiles: files,
    collisions: plan.collisions,
    papers: new Map<string, string | Buffer>([
      [refitPapers.worklistCsv, `${worklistCsv(worklist)}\r\n`],
      [refitPapers.worklistMarkdown, `${worklistMarkdown(worklist)}\n`],
      [refitPapers.snippets, `${snippetsMarkdown(snippets)}\n`],
      [refitPapers.snippetsJson, `${JSON.stringify(snippetsDocument(snippets), null, 2)}\n`],
      [refitPapers.rewrites, `${JSON.stringify(rewritesDocument(jobs), null, 2)}\n`],
      ...(await reviewRefit(workspace, shown.slice(0, review), read, options)),
    ]),
  };
  refuseStopped(options);
  return writeRefit(workspace, folder, work, { ...options, dryRun });
}

/** @throws InterruptedError when the work is to stop, and nothing has been written yet. */
export function refuseStopped({ signal }: TaskOptions): void {
  if (signal?.aborted)
    throw new InterruptedError('stopped before anything was written', {
      hint: 'run it again: finished encodes are kept',
    });
}

function savedBy({ perVisit }: RankedImage): number {
  return perVisit.wasteBytes;
}

function densitiesOf({ survey }: RankResult): (view: string) => number {
  const densities = new Map(survey.views.map(({ name, density }) => [name, density]));
  return (view) => densities.get(view) ?? 1;
}

function nameable(images: readonly RankedImage[]): NameablePicture[] {
  return images
    .filter(({ thirdParty }) => !thirdParty)
    .map(({ file, urls, placed }) => ({
      contentHash: file.contentHash,
      names: urls,
      alt: placed.find(({ markup }) => markup?.alt)?.markup?.alt ?? null,
    }));
}
