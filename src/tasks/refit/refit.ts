import { InterruptedError } from '../../core/base/errors.js';
import { familyWidths } from '../../core/rank/family-widths.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { elementImages } from '../../core/refit/markup/element-images.js';
import { ownChoices } from '../../core/refit/plan/own-choices.js';
import { mendedSizes, offersOwnWidths } from '../../core/refit/plan/own-widths.js';
import { planRefit } from '../../core/refit/plan/refit-plan.js';
import { sourcesOfSurvey } from '../../core/refit/plan/survey-sources.js';
import { planSystemWidths } from '../../core/refit/plan/system-widths.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { encodeKey } from '../../images/encode-key.js';
import type { Workspace } from '../../store/workspace.js';
import type { TaskOptions } from '../progress.js';
import { rank } from '../rank.js';
import type { RankResult, RankTaskOptions } from '../rank.js';
import { siteFindings } from '../site-findings.js';
import { refitResult } from '../survey/refit-result.js';
import { encodeInPlace } from './encode-in-place.js';
import { draftMarkup } from './draft-markup.js';
import type { ProofPages } from './draft-markup.js';
import { fetchBodies } from './fetch-bodies.js';
import { fetchCandidates } from './fetch-candidates.js';
import { findMasters } from './find-masters.js';
import { makeFiles } from './make-files.js';
import { makeSheets } from './make-sheets.js';
import { deliveryOf } from '../../core/refit/work/delivery.js';
import { papersOf } from './refit-papers.js';
import { namedByMasters, wishesFor } from './refit-wishes.js';
import type { NameablePicture, RefitWishes } from './refit-wishes.js';
import { reviewRefit } from './review-refit.js';
import { surveyWorklist } from './survey-worklist.js';
import { requireFolder } from './refit-folder.js';
import { writeRefit } from './write-refit.js';
import type { RefitResult } from './write-refit.js';

export interface RefitOptions extends TaskOptions, RefitWishes, Pick<RankTaskOptions, 'groups'> {
  /** Makes everything and writes none of it. */
  readonly dryRun?: boolean;
  /** The number of images shown beside their originals, the largest saving first. */
  readonly review?: number;
  /** Page groups, or addresses of pages, whose small images are joined into one sheet each. */
  readonly sheets?: readonly string[];
  /** Where markup is tried before it is handed out; left out, nothing is tried. */
  readonly pages?: ProofPages | undefined;
  /** Requests images whose bodies the survey did not store. */
  readonly fetch?: (url: string) => Promise<FetchedFile>;
  /** Why the site must not be asked for an address that no page named; left out, it is asked for none. */
  readonly refusal?: (url: string) => Promise<string | undefined>;
}

/** The images that one refit makes files of: its papers, and whoever puts them in place, can bear no more. */
const mostImages = 50_000;

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
  const { fetch, refusal, dryRun = false, review = usualReview } = options;
  const head = workspace.surveys.find(label);
  // Before hours of work, not after them.
  if (!dryRun) requireFolder(folder);
  await weedOutBodies(workspace, head.id);
  const reasons = fetch ? await fetchBodies(workspace, head, fetch, options) : new Map();
  const ranking = await rank(workspace, head.label, policy, options);
  refuseStopped(options);
  const { images } = ranking;
  const { uses } = ranking.ledger.facts;
  const candidates = fetch ? await fetchCandidates(workspace, images, policy, fetch, options) : [];
  refuseStopped(options);
  const elements = elementImages(ranking, policy);
  const choices = ownChoices(ranking);
  const widths = planSystemWidths(
    choices,
    ({ placed }) =>
      mendedSizes(elements.inAllViews(placed), policy.density) ?? placed.markup?.sizes ?? null,
    policy,
  );
  const { sources: found, originals } = sourcesOfSurvey(images, {
    ...{ widthsOf: familyWidths(ranking, policy.widths), elements, candidates, uses },
    reasons: new Map([...refittedBefore(workspace, ranking, policy), ...reasons]),
    systemWidths: widths,
  });
  const sources = await encodeInPlace(workspace, found, policy, options);
  refuseStopped(options);
  const writing = wishesFor(nameable(images), options, policy);
  const draft = planRefit(sources, originals, writing, policy.worthwhile, mostImages);
  const masters = await findMasters(
    workspace,
    draft.jobs,
    { images, candidates, uses, pictures: ranking.ledger.facts.pictures },
    fetch && refusal && { fetch, refusal },
    policy,
    options,
  );
  refuseStopped(options);
  const naming = namedByMasters(writing.naming, masters);
  const plan = planRefit(sources, originals, { ...writing, naming }, policy.worthwhile, mostImages);
  const orders = plan.jobs.map((job) => ({
    ...job,
    master: masters.get(job.file.contentHash) ?? null,
  }));
  const read = (hash: string) => workspace.bodies.read(hash);
  const { sheets, files } = await makeSheets(ranking, options.sheets ?? [], read);
  const { jobs, notMade, kept } = await makeFiles(workspace, orders, policy, read, options);
  refuseStopped(options);
  const { pages } = options;
  const snippets = await draftMarkup(
    workspace,
    { ranking, elements, jobs, candidates, policy, pages },
    options,
  );
  refuseStopped(options);
  const site = siteFindings(workspace, ranking);
  const worklist = surveyWorklist({
    ...{ ranking, choices, jobs, candidates, widths, policy, site },
    snippets: snippets.snippets,
  });
  const shown = dryRun
    ? []
    : jobs.toSorted((a, b) => savedBy(b.source.ranked) - savedBy(a.source.ranked));
  const work = {
    ...{ survey: ranking.survey.label, jobs, kept: [...plan.kept, ...kept], notMade },
    ...{ encodedBy: encodeKey(policy), worklist, sheets },
    markup: {
      snippets: snippets.snippets.length,
      proved: snippets.proved.size,
      untried: snippets.untried[0] ?? null,
      withheld: snippets.withheld.reduce((sum, { places }) => sum + places.length, 0),
    },
    sheetFiles: files,
    collisions: plan.collisions,
    papers: new Map<string, string | Buffer>([
      ...papersOf({ jobs, worklist, snippets, uses, delivery: deliveryOf(site) }),
      ...(await reviewRefit(workspace, shown.slice(0, review), read, options)),
    ]),
  };
  refuseStopped(options);
  return writeRefit(workspace, folder, work, { ...options, dryRun });
}

/** What is damaged counts as missing, and is made or fetched again. */
async function weedOutBodies(
  { pages, encodes, bodies }: Workspace,
  surveyId: number,
): Promise<void> {
  const originals = pages.files(surveyId).map(({ contentHash }) => contentHash);
  await bodies.weedOut([...originals, ...encodes.resultsOf(surveyId)]);
}

/** Files of earlier refits that elements choose at the width that they have: they stay as they are. */
function refittedBefore(
  workspace: Workspace,
  { images }: RankResult,
  policy: Policy,
): [contentHash: string, reason: string][] {
  return images
    .filter(({ placed }) => placed.some(offersOwnWidths))
    .filter(({ file }) => refitResult(workspace, file, file.intrinsic, policy) !== undefined)
    .map(({ file }) => [file.contentHash, 'it is a file of an earlier refit']);
}

/** @throws InterruptedError when the work is to stop, and nothing has been written yet. */
export function refuseStopped({ signal }: TaskOptions): void {
  if (signal?.aborted)
    throw new InterruptedError('stopped before anything was written', {
      hint: 'run it again: finished encodes are kept',
    });
}

function savedBy(image: RankedImage | null): number {
  return image?.perVisit.wasteBytes ?? 0;
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
