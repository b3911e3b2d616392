import type { SiteFinding } from '../../core/findings/site/index.js';
import { elementKey } from '../../core/refit/markup/element-images.js';
import { pictureFinder } from '../../core/rank/ranked-picture.js';
import type { OwnChoice } from '../../core/refit/plan/own-choices.js';
import { hasWidths } from '../../core/refit/markup/refitted-element.js';
import { planOwnWidths } from '../../core/refit/work/own-widths-plan.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import type { Snippet } from '../../core/refit/markup/snippet.js';
import type { SystemWidths } from '../../core/refit/plan/system-widths.js';
import { worklistOf } from '../../core/refit/work/worklist.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import type { Policy } from '../../core/policy/policy.js';
import { attributeOf } from '../../core/slots/element-markup.js';
import { contentHashOf } from '../../images/hash.js';
import { findingWords } from '../../output/words/findings.js';
import type { RankResult } from '../rank.js';
import type { CandidateFile } from './fetch-candidates.js';

/** Digits of the ids of items. */
const idDigits = 8;

export interface SurveyWork {
  readonly ranking: RankResult;
  /** Findings on files that are no images. */
  readonly site: readonly SiteFinding[];
  readonly choices: readonly OwnChoice[];
  readonly jobs: readonly MadeJob[];
  readonly snippets: readonly Snippet[];
  readonly candidates: readonly CandidateFile[];
  readonly widths: SystemWidths;
  readonly policy: Policy;
}

/** What is to be done about the images of a survey, by the files and the markup that are handed over. */
export function surveyWorklist(work: SurveyWork): WorkItem[] {
  const { ranking, site, choices, jobs, snippets, candidates, widths, policy } = work;
  const { images, pictures } = ranking;
  const jobAt = new Map(
    jobs.flatMap((job) => job.file.originals.map((url) => [url, job] as const)),
  );
  const bytesAt = new Map([
    ...images.flatMap(({ urls, file }) => urls.map((url) => [url, file.bytes] as const)),
    ...candidates.map(({ url, file }) => [url, file.bytes] as const),
  ]);
  const sizes = new Map(
    snippets.flatMap((snippet) => {
      const text = sizesOf(snippet);
      return text === null ? [] : snippet.places.map((place) => [elementKey(place), text] as const);
    }),
  );
  const ownWidths = planOwnWidths(choices, {
    sizesOf: ({ placed }) => {
      const text = sizes.get(elementKey(placed)) ?? null;
      return text === placed.markup?.sizes ? null : text;
    },
    bytesOf: (url) => bytesAt.get(url),
    jobAt: (url) => jobAt.get(url),
    widths,
  });
  return worklistOf({
    ...{ images, jobs, site, policy, ownWidths, wordsOf: findingWords },
    pictureOf: pictureFinder(pictures),
    groups: ranking.ledger.groups,
    idOf: (key) => contentHashOf(Buffer.from(key)).slice(0, idDigits),
  });
}

/** The `sizes` that a snippet gives its element; `null` where nothing chooses by width. */
function sizesOf({ after }: Snippet): string | null {
  const parts = after ? [after.attributes, ...(after.picture?.sources ?? [])] : [];
  const chosen = parts.find((part) => hasWidths(attributeOf(part, 'srcset')));
  return chosen ? attributeOf(chosen, 'sizes') : null;
}
