import { Allowances } from '../policy/allowance.js';
import type { PolicyRule } from '../policy/allowance.js';
import { needFactor, pixelsAt } from '../policy/need.js';
import type { Policy } from '../policy/policy.js';
import type { Size } from '../base/size.js';
import type { ImageFile } from '../survey/image-file.js';
import type { SurveyFacts } from '../survey/survey.js';

/** What every placement of a survey needs of its file, row by row of the table of placements. */
export interface PlacementNeeds {
  /** Part of the file's width and height that is enough, as `needFactor` has it; 0 where nothing is shown. */
  readonly factors: Float64Array;
  /** 1 where a rule lets the file be as it is. */
  readonly exempt: Uint8Array;
  /** Rules that hold for nothing. */
  readonly unmatchedRules: readonly PolicyRule[];
}

export function needsOfPlacements(
  { placements, files, visits, head, pages }: Omit<SurveyFacts, 'encoded' | 'pictures'>,
  policy: Policy,
): PlacementNeeds {
  const allowances = allowancesOf(policy, pages);
  const densities = new Map(head.views.map(({ name, density }) => [name, density]));
  const density = visits.map(({ view }) => densities.get(view) ?? 1);
  const intrinsics = files.map(({ intrinsic }) => intrinsic);
  const { visit, shape, file } = placements.columns;
  const { shapes } = placements.lists;
  const factors = new Float64Array(placements.length);
  const exempt = new Uint8Array(placements.length);
  const hasRules = policy.rules.length > 0;
  for (let row = 0; row < placements.length; row++) {
    const form = shapes[shape[row]!]!;
    if (!form.shown) continue;
    const allowed = hasRules ? allowances.of(placements.at(row)) : undefined;
    if (allowed?.exempt) exempt[row] = 1;
    const intrinsic = file[row]! < 0 ? null : intrinsics[file[row]!];
    // A vector has no pixels: whatever shows it needs all of it.
    factors[row] = intrinsic
      ? needFactor(form, density[visit[row]!]!, intrinsic, policy, allowed)
      : 1;
  }
  return { factors, exempt, unmatchedRules: allowances.unmatched };
}

/** The rules of a policy for the pages of a survey. */
export function allowancesOf(
  { rules }: Pick<Policy, 'rules'>,
  pages: SurveyFacts['pages'],
): Allowances {
  return new Allowances(rules, new Map(pages.map(({ url, group }) => [url, group])));
}

/** The largest need of each file that has pixels and is shown, over its placements, by content hash. */
export function largestNeeds(
  { placements, files }: Pick<SurveyFacts, 'placements' | 'files'>,
  needs: Pick<PlacementNeeds, 'factors'>,
): Map<string, Size> {
  const most = new Float64Array(files.length);
  noteLargest(most, placements, needs);
  return needsOfFiles(files, most);
}

/** Notes the largest factor of each file over some placements. @param most factors by the place of a file */
export function noteLargest(
  most: Float64Array,
  { columns }: SurveyFacts['placements'],
  { factors }: Pick<PlacementNeeds, 'factors'>,
): void {
  columns.file.forEach((file, row) => {
    if (file >= 0 && factors[row]! > most[file]!) most[file] = factors[row]!;
  });
}

/** The needs of files from their largest factors, by content hash. */
export function needsOfFiles(files: readonly ImageFile[], most: Float64Array): Map<string, Size> {
  return new Map(
    files.flatMap(({ contentHash, intrinsic }, at) =>
      intrinsic && most[at]! > 0 ? [[contentHash, pixelsAt(intrinsic, most[at]!)]] : [],
    ),
  );
}
