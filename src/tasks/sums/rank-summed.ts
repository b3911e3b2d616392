import { groupBy } from '../../core/base/group-by.js';
import type { Policy } from '../../core/policy/policy.js';
import { rankImages } from '../../core/rank/ranking.js';
import type { RankQuery, RankedRows, RankedSurvey } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { FileTable } from '../../core/rank/sums/file-sums.js';
import { chooseSummed, summedRows } from '../../core/rank/sums/summed-rows.js';
import type { SurveyHead } from '../../core/survey/survey.js';
import { largestNeeds, needsOfPlacements } from '../../core/waste/placement-needs.js';
import { weightsOn } from '../../core/waste/visit-weights.js';
import { encodeKey } from '../../images/encode-key.js';
import type { Workspace } from '../../store/workspace.js';
import { isJudged, keptEncode } from '../survey/encode-survey.js';
import { basisOf } from './basis.js';
import { packed } from './packed.js';
import type { SumHead } from './packed.js';
import { judgeSurvey } from './judge-survey.js';
import { sumSurvey, tableName } from './sum-survey.js';
import type { SumOptions } from './sum-survey.js';
import { pagesIn } from './survey-parts.js';

/** Rows of a ranking that was made from sums. */
export interface SummedRanking extends RankedRows {
  readonly result: RankedSurvey;
}

export interface SummedQuery extends Pick<RankQuery, 'by' | 'sort' | 'top'> {
  /** How many images are listed in full. */
  readonly imageLimit: number;
}

/** The most files that are read one by one: for more of them a survey is read whole. */
const mostFiles = 2_000;

/**
 * Ranks a large survey from its sums, all visits and all images of it; they are made first where they are missing (the
 * policy or the names of page groups have changed).
 *
 * @returns `undefined` where it is quicker to read the survey whole, where that is the only way, and when it was stopped
 * @throws NotFoundError when there is no such survey.
 */
export async function rankSummed(
  workspace: Workspace,
  label: string | undefined,
  policy: Policy,
  query: SummedQuery,
  options: SumOptions = {},
): Promise<SummedRanking | undefined> {
  const head = workspace.surveys.find(label);
  if (head.finishedAt === null || workspace.pages.parts(head) < 2) return undefined;
  const basis = basisOf(policy, options.groups);
  const kept = headOf(workspace, head, basis);
  if (!kept && !(await makeSums(workspace, head, policy, options))) return undefined;
  const { scale, unmatchedRules } = kept ?? headOf(workspace, head, basis)!;
  const read = (name: string) => workspace.sums.get(head.id, basis, name)!;
  const files = packed.fileTable.read(read('files'));
  const sums = { table: packed.table.read(read(tableName(query.by))), files };
  const choice = chooseSummed(sums, query, query.imageLimit);
  if (choice.wanted.length > mostFiles) return undefined;
  const hashes = packed.hashes.read(read('hashes'));
  const pages = pagesIn(workspace, head, options.groups);
  const survey = { head, pages, scale };
  const images = imagesOf(workspace, survey, policy, files, hashes, choice.wanted);
  const rows = summedRows(
    ...([sums, choice, (file: number) => images.get(file)!] as const),
    (file) => hashes[file]!,
  );
  const { visitsAMonth, guessedPages } = scale;
  const weights = { visitsAMonth, guessedPages };
  return { ...rows, result: { survey: head, pages, weights, unmatchedRules } };
}

/** @returns whether they were made: not where another program makes them, and where it was stopped */
async function makeSums(
  workspace: Workspace,
  head: SurveyHead,
  policy: Policy,
  options: SumOptions,
): Promise<boolean> {
  const name = `sums-${head.id}`;
  if (workspace.leases.isHeld(name)) return false;
  const lease = workspace.leases.take(name);
  try {
    const judged = await judgeSurvey(workspace, head, policy, options);
    await sumSurvey(workspace, judged, policy, options);
    return !options.signal?.aborted;
  } finally {
    lease.release();
  }
}

/** What was summed up on this basis; `undefined` where it was not, and where encodes can be made that could not then. */
function headOf(workspace: Workspace, { id }: SurveyHead, basis: string): SumHead | undefined {
  const bytes = workspace.sums.get(id, basis, 'head');
  const head = bytes && packed.head.read(bytes);
  return head?.missing.some((hash) => workspace.bodies.has(hash)) ? undefined : head;
}

/** Some images of a survey with all that is known of them, by the places of their files. */
function imagesOf(
  workspace: Workspace,
  {
    head,
    pages,
    scale,
  }: { readonly head: SurveyHead } & Pick<RankedSurvey, 'pages'> & Pick<SumHead, 'scale'>,
  policy: Policy,
  { parts, partStarts, largest }: FileTable,
  hashes: readonly string[],
  wanted: readonly number[],
): Map<number, RankedImage> {
  // Of a smaller file of a picture it is told which is the largest.
  const places = [...new Set([...wanted, ...wanted.map((file) => largest[file]!)])];
  const placeOf = new Int32Array(hashes.length).fill(-1);
  places.forEach((file, place) => (placeOf[file] = place));
  const files = places.map((file) => workspace.images.get(hashes[file]!)!);
  const numbers = new Set(
    places.flatMap((file) => [...parts.subarray(partStarts[file], partStarts[file + 1])]),
  );
  const inOrder = [...numbers].sort((a, b) => a - b);
  const tables = workspace.pages.ofFiles(head.id, inOrder, files, placeOf);
  const ofPictures = [...groupBy(places, (file) => largest[file]!)].map(([first, some]) =>
    [first, ...some.filter((file) => file !== first)].map((file) => placeOf[file]!),
  );
  const ofFile = new Int32Array(files.length);
  ofPictures.forEach((some, picture) => some.forEach((place) => (ofFile[place] = picture)));
  const surveyed = { head, pages, ...tables };
  const needs = needsOfPlacements(surveyed, policy);
  const most = largestNeeds(surveyed, needs);
  const kept = workspace.encodes.ofFiles(
    files.map(({ contentHash }) => contentHash),
    encodeKey(policy),
  );
  const encoded = files.flatMap((file) => {
    const need = most.get(file.contentHash) ?? null;
    return isJudged(file, need) ? (keptEncode(workspace, file, need, policy, kept) ?? []) : [];
  });
  const facts = { ...surveyed, encoded, pictures: { ofFile, files: ofPictures } };
  const weights = weightsOn(scale, pages, head.views);
  const { images } = rankImages(facts, policy, { needs, weights });
  return new Map(images.map((image) => [places[image.fileIndex]!, image]));
}
