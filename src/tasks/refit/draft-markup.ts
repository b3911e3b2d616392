import type { Access } from '../../core/address/access.js';
import type { Policy } from '../../core/policy/policy.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { ElementImages } from '../../core/refit/markup/element-images.js';
import { formFor, isNegotiated } from '../../core/refit/markup/markup-form.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import { snippetsOf } from '../../core/refit/markup/snippet.js';
import type { ProvedSnippets, SnippetContext, Snippets } from '../../core/refit/markup/snippet.js';
import type { Reach } from '../../reach/reach.js';
import type { Workspace } from '../../store/workspace.js';
import type { RankResult } from '../rank.js';
import type { TaskOptions } from '../progress.js';
import type { CandidateFile } from './fetch-candidates.js';
import { proveSnippets } from './prove-snippets.js';

/** Where the pages of a survey are, so that markup can be tried in them. */
export interface ProofPages {
  readonly reach: () => Promise<Reach>;
  readonly accesses: readonly Access[];
  /** Bytes that all processes of the browser may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
}

export interface MarkupInputs {
  readonly ranking: RankResult;
  readonly elements: ElementImages;
  readonly jobs: readonly MadeJob[];
  readonly candidates: readonly CandidateFile[];
  readonly policy: Policy;
  /** Left out, nothing is tried. */
  readonly pages?: ProofPages | undefined;
}

/** The markup for a survey's images, tried in their pages where those can be loaded. */
export async function draftMarkup(
  workspace: Workspace,
  inputs: MarkupInputs,
  options: TaskOptions,
): Promise<ProvedSnippets> {
  const { ranking, jobs, candidates, policy, pages } = inputs;
  const drafts = draftsOf(inputs);
  if (!pages) {
    const snippets = drafts.snippets.map((one) => one.orElse ?? one);
    const untried = ['they were not to be tried (--no-prove)'];
    return { ...drafts, snippets, proved: new Set(), untried };
  }
  const widthAt = new Map([
    ...ranking.images.flatMap(({ urls, file }) =>
      urls.flatMap((url) => (file.intrinsic ? [[url, file.intrinsic.width] as const] : [])),
    ),
    ...candidates.map(({ url, file }) => [url, file.intrinsic!.width] as const),
  ]);
  const views = ranking.survey.views;
  const { reach, accesses, memory } = pages;
  return proveSnippets(
    workspace,
    drafts,
    { views, policy, jobs, widthAt, accesses, memory, reach: await reach() },
    options,
  );
}

function draftsOf({ ranking, elements, jobs, policy }: MarkupInputs): Snippets {
  const jobOf = new Map(jobs.map((job) => [job.file.contentHash, job]));
  const context: SnippetContext = {
    groups: ranking.ledger.groups,
    elements,
    density: policy.density,
    form: (image: RankedImage) => formFor(image, policy),
    isNegotiated: (image: RankedImage) => isNegotiated(image, policy),
  };
  const drafted = ranking.images.map((image) =>
    snippetsOf(image, jobOf.get(image.file.contentHash) ?? null, context),
  );
  return {
    snippets: drafted.flatMap((one) => one.snippets),
    withheld: drafted.flatMap((one) => one.withheld),
  };
}
