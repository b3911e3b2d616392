import { randomUUID } from 'node:crypto';
import pLimit from 'p-limit';
import type { Policy } from '../../core/policy/policy.js';
import { groupings } from '../../core/rank/groupings.js';
import { fileTableOf } from '../../core/rank/sums/file-sums.js';
import { mergeTable } from '../../core/rank/sums/survey-sums.js';
import type { Spread } from '../../core/rank/sums/survey-sums.js';
import type { Encoded } from '../../core/survey/encoded.js';
import type { Pictures } from '../../core/survey/pictures.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';
import type { CrewWork } from '../survey/crew-work.js';
import { basisOf } from './basis.js';
import type { FirstLook } from './first-look.js';
import { packed } from './packed.js';
import { partName, sumPart } from './sum-part.js';
import type { PartOf } from './sum-part.js';
import type { SurveyParts } from './survey-parts.js';

/** What a survey is summed up from. */
export interface JudgedSurvey {
  readonly parts: SurveyParts;
  readonly look: FirstLook;
  readonly encoded: readonly Encoded[];
  readonly pictures: Pictures;
}

export interface SumOptions extends TaskOptions {
  readonly groups?: readonly NamedGroup[] | undefined;
  /** Who sums up parts besides. */
  readonly crew?: CrewWork | undefined;
}

/**
 * Sums up a survey in parts, and puts them together: then it can be ranked without reading it. Parts that were summed up
 * before the work was stopped are not summed up again.
 */
export async function sumSurvey(
  workspace: Workspace,
  { parts, look, encoded, pictures }: JudgedSurvey,
  policy: Policy,
  { signal, onProgress = noProgress, groups, crew }: SumOptions = {},
): Promise<void> {
  const { id, label } = parts.head;
  const { sums } = workspace;
  const basis = basisOf(policy, groups);
  const closing = randomUUID();
  const frame = { closing, scale: look.scale, factors: look.factors, pictures };
  sums.keepOnly(id, basis);
  sums.add(id, basis, 'frame', packed.frame.write(frame));
  const numbers = Array.from({ length: parts.count }, (_, number) => number);
  const due = numbers.filter((number) => !sums.has(id, basis, partName(number, 'files')));
  let done = parts.count - due.length;
  const tell = () => onProgress({ stage: 'sums', done, total: parts.count, doing: label });
  tell();
  const limit = pLimit(1 + (crew?.capacity ?? 0));
  let isBusy = false;
  const sum = async (number: number) => {
    if (signal?.aborted) return;
    // One is always summed up here, the others by whoever is free.
    if (!isBusy || !(await crew?.sum(number, closing))) {
      isBusy = true;
      // Progress is drawn, and Ctrl-C heard, between two parts.
      await new Promise((resolve) => setImmediate(resolve));
      sumPart(workspace, parts, number, policy, basis, frame);
      isBusy = false;
    }
    done++;
    tell();
  };
  await Promise.all(due.map((number) => limit(() => sum(number))));
  if (signal?.aborted) return;
  keepMerged(workspace, { parts, look, encoded, pictures }, policy, basis);
}

/** Puts the sums of all parts together, one grouping after the other, and keeps them. */
function keepMerged(
  { sums, bodies }: Workspace,
  { parts, look, encoded, pictures }: JudgedSurvey,
  policy: Policy,
  basis: string,
): void {
  const { id } = parts.head;
  const { files } = parts;
  const byHash = new Map(encoded.map((one) => [one.contentHash, one]));
  const ofFiles = files.map(({ contentHash }) => byHash.get(contentHash));
  const given = { files, encoded: ofFiles, widths: policy.widths };
  // One after the other, so that none is in memory as bytes when it is not read yet.
  function* all<Sums>(of: PartOf, read: (bytes: Buffer) => Sums): Generator<Sums> {
    for (let number = 0; number < parts.count; number++)
      yield read(sums.get(id, basis, partName(number, of))!);
  }
  const keep = (name: string, bytes: Buffer) => sums.add(id, basis, name, bytes);
  const sumsOfParts = {
    rows: (by: Spread) => all(by, packed.rows.read),
    pages: () => all('page', packed.table.read),
  };
  for (const by of groupings)
    keep(tableName(by), packed.table.write(mergeTable(by, sumsOfParts, given)));
  const ofParts = all('files', packed.files.read);
  keep('files', packed.fileTable.write(fileTableOf(ofParts, files, ofFiles, pictures)));
  keep('hashes', packed.hashes.write(files.map(({ contentHash }) => contentHash)));
  const missing = files
    .filter((_, file) => (ofFiles[file]?.problem ?? null) !== null)
    .sort((a, b) => b.bytes - a.bytes)
    .slice(0, mostMissing)
    .flatMap(({ contentHash }) => (bodies.has(contentHash) ? [] : contentHash));
  const { scale, unmatchedRules } = look;
  // The last: where it is, the others are.
  keep('head', packed.head.write({ scale, unmatchedRules, missing }));
  sums.delete(id, basis, 'part/');
  sums.delete(id, basis, 'frame');
}

/** Of files without a body so many are remembered, since each of them is looked for before the sums are believed. */
const mostMissing = 100;

export function tableName(by: string): string {
  return `table/${by}`;
}
