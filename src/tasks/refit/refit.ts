import { InterruptedError } from '../../core/base/errors.js';
import { formFor, isNegotiated } from '../../core/refit/markup-form.js';
import { elementImages } from '../../core/refit/element-images.js';
import { familyWidths } from '../../core/rank/family-widths.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { acceptedFormats } from '../../core/refit/accepted-formats.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import type { Access } from '../../core/address/access.js';
import { planOwnWidths } from '../../core/refit/own-widths-plan.js';
import { planRefit } from '../../core/refit/refit-plan.js';
import { sourcesOfSurvey } from '../../core/refit/survey-sources.js';
import { snippetsOf } from '../../core/refit/snippet.js';
import type { Snippet } from '../../core/refit/snippet.js';
import { worklistOf } from '../../core/refit/worklist.js';
import { contentHashOf } from '../../images/hash.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { rewritesDocument } from '../../output/json/rewrites.js';
import { snippetsDocument } from '../../output/json/snippets.js';
import { snippetsMarkdown } from '../../output/markdown/snippets.js';
import { worklistCsv } from '../../output/csv/worklist.js';
import { ticketsMarkdown } from '../../output/markdown/tickets.js';
import { apacheRules } from '../../output/server/apache.js';
import { nginxRules } from '../../output/server/nginx.js';
import { worklistMarkdown } from '../../output/markdown/worklist.js';
import { findingWords } from '../../output/words/findings.js';
import type { HostMap } from '../../browser/chromium/host-map.js';
import type { Workspace } from '../../store/workspace.js';
import { fetchBodies } from './fetch-bodies.js';
import { fetchCandidates } from './fetch-candidates.js';
import { makeFiles } from './make-files.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';
import type { RankResult } from '../rank.js';
import { wishesFor } from './refit-wishes.js';
import type { NameablePicture, RefitWishes } from './refit-wishes.js';
import { proveSnippets } from './prove-snippets.js';
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
  /** Tries the markup in the pages of the survey, which are found there; without it, nothing is tried. */
  readonly pages?:
    { readonly hosts: () => Promise<HostMap>; readonly accesses: readonly Access[] } | undefined;
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
  const { images } = ranking;
  const { uses } = ranking.ledger.facts;
  const candidates = fetch ? await fetchCandidates(workspace, images, policy, fetch, options) : [];
  refuseStopped(options);
  const elements = elementImages(images, densitiesOf(ranking), policy);
  const { sources, originals } = sourcesOfSurvey(images, {
    ...{ widthsOf: familyWidths(ranking, policy.widths), elements, reasons, candidates },
    uses,
  });
  const writing = wishesFor(nameable(images), options, policy);
  const plan = planRefit(sources, originals, writing, policy.worthwhile);
  const read = (hash: string) => workspace.bodies.read(hash);
  const { sheets, files } = await makeSheets(ranking, options.sheets ?? [], read);
  const { jobs, notMade, kept } = await makeFiles(workspace, plan.jobs, policy, read, options);
  refuseStopped(options);
  const groups = new Map(ranking.pages.map(({ url, group }) => [url, group]));
  const jobOf = new Map(jobs.map((job) => [job.file.contentHash, job]));
  const context = {
    ...{ groups, elements, isNegotiated: (image: RankedImage) => isNegotiated(image, policy) },
    form: (image: RankedImage) => formFor(image, policy),
  };
  const drafted = images.map((image) =>
    snippetsOf(image, jobOf.get(image.file.contentHash) ?? null, context),
  );
  const drafts = {
    snippets: drafted.flatMap((one) => one.snippets),
    withheld: drafted.flatMap((one) => one.withheld),
  };
  const widthAt = new Map([
    ...images.flatMap(({ urls, file }) =>
      urls.flatMap((url) => (file.intrinsic ? [[url, file.intrinsic.width] as const] : [])),
    ),
    ...candidates.map(({ url, file }) => [url, file.intrinsic!.width] as const),
  ]);
  const snippets = options.pages
    ? await proveSnippets(
        workspace,
        drafts,
        {
          ...{ views: ranking.survey.views, policy, jobs, widthAt },
          ...{ hosts: await options.pages.hosts(), accesses: options.pages.accesses },
        },
        options,
      )
    : {
        ...drafts,
        proved: new Set<Snippet>(),
        untried: ['they were not to be tried (--no-prove)'],
      };
  refuseStopped(options);
  const jobAt = new Map(
    jobs.flatMap((job) => job.file.originals.map((url) => [url, job] as const)),
  );
  const bytesAt = new Map([
    ...images.flatMap(({ urls, file }) => urls.map((url) => [url, file.bytes] as const)),
    ...candidates.map(({ url, file }) => [url, file.bytes] as const),
  ]);
  const ownWidths = planOwnWidths(ranking, policy, (url) => bytesAt.get(url), jobAt);
  const worklist = worklistOf({
    ...{ images, jobs, policy, groups, ownWidths, wordsOf: findingWords },
    idOf: (key) => contentHashOf(Buffer.from(key)).slice(0, 8),
  });
  const shown = dryRun
    ? []
    : jobs.toSorted((a, b) => savedBy(b.source.ranked) - savedBy(a.source.ranked));
  const work = {
    ...{ survey: ranking.survey.label, jobs, kept: [...plan.kept, ...kept], notMade },
    ...{ worklist, sheets },
    sheetFiles: files,
    collisions: plan.collisions,
    papers: new Map<string, string | Buffer>([
      [refitPapers.worklistCsv, `${worklistCsv(worklist)}\r\n`],
      [refitPapers.worklistMarkdown, `${worklistMarkdown(worklist)}\n`],
      [refitPapers.tickets, `${ticketsMarkdown(worklist)}\n`],
      [refitPapers.snippets, `${snippetsMarkdown(snippets)}\n`],
      [refitPapers.snippetsJson, `${JSON.stringify(snippetsDocument(snippets), null, 2)}\n`],
      [refitPapers.rewrites, `${JSON.stringify(rewritesDocument(jobs, uses), null, 2)}\n`],
      ...serverPapers(jobs),
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

/** Rules for servers that choose the format, where there is a choice. */
function serverPapers(jobs: readonly MadeJob[]): [path: string, text: string][] {
  const pairs = acceptedFormats(jobs);
  if (pairs.length === 0) return [];
  return [
    [refitPapers.nginx, nginxRules(pairs)],
    [refitPapers.apache, apacheRules(pairs)],
  ];
}

function savedBy(image: RankedImage | null): number {
  return image?.perVisit.wasteBytes ?? 0;
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
