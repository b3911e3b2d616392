import { pixelsAt } from '../../core/policy/need.js';
import type { Policy } from '../../core/policy/policy.js';
import type { Grouping } from '../../core/rank/groupings.js';
import { ledgerOf } from '../../core/rank/ranking.js';
import { partSumsOf, spread } from '../../core/rank/sums/survey-sums.js';
import type { Encoded } from '../../core/survey/encoded.js';
import type { SurveyedFacts } from '../../store/pages.js';
import { needsOfPlacements } from '../../core/waste/placement-needs.js';
import { weightsOn } from '../../core/waste/visit-weights.js';
import { encodeKey } from '../../images/encode-key.js';
import type { Workspace } from '../../store/workspace.js';
import { isJudged, keptEncode } from '../survey/encode-survey.js';
import { packed } from './packed.js';
import type { SumFrame } from './packed.js';
import type { SurveyParts } from './survey-parts.js';

/** What is summed up of a part. */
export type PartOf = Grouping | 'files';

/** Its name. */
export function partName(number: number, of: PartOf): string {
  return `part/${number}/${of}`;
}

/** Sums up a part of a survey, and keeps it. Encodes are there by then, or cannot be made. */
export function sumPart(
  workspace: Workspace,
  parts: SurveyParts,
  number: number,
  policy: Policy,
  basis: string,
  frame: SumFrame,
): void {
  const part = parts.read(number);
  const { scale, pictures } = frame;
  const encoded = encodesIn(workspace, part, policy, frame);
  const facts = { ...part, encoded, pictures };
  const weights = weightsOn(scale, part.pages, parts.head.views);
  const ledger = ledgerOf(facts, policy, needsOfPlacements(part, policy), weights);
  const { rows, pages, files } = partSumsOf(ledger);
  const keep = (of: PartOf, bytes: Buffer) =>
    workspace.sums.add(parts.head.id, basis, partName(number, of), bytes);
  for (const by of spread) keep(by, packed.rows.write(rows[by]));
  keep('page', packed.table.write(pages));
  // The last: where it is, the others are.
  keep('files', packed.files.write(files));
}

/** The encodes of the files that the visits of a part have. */
function encodesIn(
  workspace: Workspace,
  { files, placements, responses }: SurveyedFacts,
  policy: Policy,
  { factors }: SumFrame,
): Encoded[] {
  const places = new Set([...placements.columns.file, ...responses.columns.file]);
  places.delete(-1);
  const some = [...places].map((place) => ({ file: files[place]!, factor: factors[place]! }));
  const hashes = some.map(({ file }) => file.contentHash);
  const kept = workspace.encodes.ofFiles(hashes, encodeKey(policy));
  return some.flatMap(({ file, factor }) => {
    const need = file.intrinsic && factor > 0 ? pixelsAt(file.intrinsic, factor) : null;
    return isJudged(file, need) ? (keptEncode(workspace, file, need, policy, kept) ?? []) : [];
  });
}
