import { ExactSums } from '../../base/exact-sums.js';
import { pixelsAt } from '../../policy/need.js';
import type { Encoded } from '../../survey/encoded.js';
import type { ImageFile } from '../../survey/image-file.js';
import type { Pictures } from '../../survey/pictures.js';
import { rowsByIndex } from '../../survey/survey-tables.js';
import type { Ledger } from '../../waste/ledger.js';
import { addCauses } from '../../waste/waste.js';
import type { Waste } from '../../waste/waste.js';
import { canJudge, inOrder, judgeWholeFile, sentOf, wholeNeed } from '../../waste/whole-file.js';
import { RankedImage } from '../ranked-image.js';
import type { RankTotals } from '../ranking.js';

/** What a part of a survey says of a file that its visits have. */
export interface FileSum {
  /** Place in the list of files. */
  readonly file: number;
  /** The largest part of its width that is enough; 0 where it is not shown. */
  readonly factor: number;
  readonly isPlaced: boolean;
  /** A rule lets it be as it is. */
  readonly isExempt: boolean;
  /** Its addresses, and how often each is sent in one visit. */
  readonly times: ReadonlyMap<string, number>;
  /** Whether all its answers were compressed in transit. */
  readonly compressed: boolean;
  /** The address of its first placement, where it has no answer. */
  readonly placedAt: string;
}

/** The same of all files that the visits of a part have, and what they waste. */
export interface FileSums {
  readonly files: readonly FileSum[];
  /** Bytes that an average visit wastes of each. */
  readonly waste: ExactSums;
}

export function fileSumsOf(ledger: Ledger): FileSums {
  const { facts, starts, verdicts, verdictIndex, inputs } = ledger;
  const wasteByFile = ledger.wasteByFile();
  const files: FileSum[] = [];
  for (let file = 0; file < facts.files.length; file++) {
    const [from, to] = [starts[file]!, starts[file + 1]!];
    if (from === to) continue;
    let factor = 0;
    for (let row = from; row < to; row++)
      factor = Math.max(factor, verdicts[verdictIndex[row]!]!.factor);
    const image = new RankedImage(ledger, file);
    const { times, compressed } = sentOf(image.answers);
    files.push({
      ...{ file, factor, isPlaced: image.isPlaced, times, compressed },
      isExempt: inputs.policy.rules.length > 0 && image.rules.some((rule) => rule.exempt),
      placedAt: times.size === 0 ? image.url : '',
    });
  }
  const waste = new ExactSums(files.length);
  files.forEach(({ file }, at) => waste.addSum(at, wasteByFile, file));
  return { files, waste };
}

/** The image files of a whole survey, as far as a ranking tells of all of them. */
export interface FileTable {
  /** Places in the list of files, most waste first. */
  readonly order: Int32Array;
  /** How many pictures they are. */
  readonly pictures: number;
  /** By the place of a file, the largest file of its picture, and the largest of those that were sent or placed. */
  readonly largest: Int32Array;
  readonly pictureOf: Int32Array;
  /** The numbers of the parts that have each file: from `partStarts[file]` to before `partStarts[file + 1]`. */
  readonly parts: Int32Array;
  readonly partStarts: Int32Array;
  /** Each file counted once. */
  readonly totals: RankTotals;
  /** Files that were fetched, but placed nowhere. */
  readonly unplaced: number;
  /** Those that cannot be judged, in that order. */
  readonly unjudged: Int32Array;
}

/** @param parts one after the other, which need not all be in memory */
export function fileTableOf(
  parts: Iterable<FileSums>,
  files: readonly ImageFile[],
  encoded: readonly (Encoded | undefined)[],
  pictures: Pictures,
): FileTable {
  const merged = new Map<number, FileSum>();
  const waste = new ExactSums(files.length);
  const having: { readonly file: number; readonly part: number }[] = [];
  let number = 0;
  for (const part of parts) {
    part.files.forEach((sum, at) => {
      waste.addSum(sum.file, part.waste, at);
      const known = merged.get(sum.file);
      merged.set(sum.file, known ? merge(known, sum) : sum);
      having.push({ file: sum.file, part: number });
    });
    number++;
  }
  const judged = [...merged.values()].map((sum) => ({
    ...sum,
    perVisit: waste.at(sum.file),
    url: inOrder(sum.times.keys())[0] ?? sum.placedAt,
    ...judge(sum, files[sum.file]!, encoded[sum.file]),
  }));
  judged.sort(
    (a, b) =>
      b.perVisit - a.perVisit ||
      (b.waste?.wasteBytes ?? -1) - (a.waste?.wasteBytes ?? -1) ||
      (a.url < b.url ? -1 : 1),
  );
  const placesOf = (some: readonly FileSum[]) => Int32Array.from(some, ({ file }) => file);
  return {
    order: placesOf(judged),
    pictures: new Set(judged.map(({ file }) => pictures.ofFile[file]!)).size,
    largest: pictures.ofFile.map((picture) => pictures.files[picture]![0]!),
    pictureOf: pictures.ofFile.map(
      (picture) => pictures.files[picture]!.find((file) => merged.has(file)) ?? -1,
    ),
    ...partsOfFiles(having, files.length),
    totals: totalsOfFiles(judged),
    unplaced: judged.filter(({ isPlaced }) => !isPlaced).length,
    unjudged: placesOf(judged.filter(({ isJudged }) => !isJudged)),
  };
}

/** Which parts have each file. */
function partsOfFiles(
  entries: readonly { readonly file: number; readonly part: number }[],
  count: number,
): Pick<FileTable, 'parts' | 'partStarts'> {
  const { rows, starts } = rowsByIndex(
    Int32Array.from(entries, ({ file }) => file),
    count,
  );
  return { parts: rows.map((at) => entries[at]!.part), partStarts: starts };
}

function merge(one: FileSum, other: FileSum): FileSum {
  const times = new Map(one.times);
  for (const [url, sent] of other.times) times.set(url, Math.max(times.get(url) ?? 1, sent));
  // Where a part has no answer, nothing is said of how it is sent.
  const silent = (sum: FileSum) => sum.times.size === 0;
  return {
    file: one.file,
    factor: Math.max(one.factor, other.factor),
    isPlaced: one.isPlaced || other.isPlaced,
    isExempt: one.isExempt || other.isExempt,
    times,
    compressed:
      (silent(one) || one.compressed) &&
      (silent(other) || other.compressed) &&
      (!silent(one) || !silent(other)),
    placedAt: one.placedAt || other.placedAt,
  };
}

function judge(
  { factor, isPlaced, isExempt, times, compressed }: FileSum,
  file: ImageFile,
  encoded: Encoded | undefined,
) {
  const isShown = factor > 0;
  const most = file.intrinsic && isShown ? pixelsAt(file.intrinsic, factor) : null;
  const need = wholeNeed(encoded, most);
  return {
    ...judgeWholeFile(file, encoded, { times, compressed, isPlaced, isShown, isExempt, need }),
    isJudged: canJudge(isPlaced, isShown, file.problem ?? encoded?.problem ?? null),
  };
}

/** Totals of files, each once. */
export function totalsOfFiles(
  files: readonly { readonly waste: Waste | null; readonly sentBytes: number }[],
): RankTotals {
  let [neededBytes, wasteBytes, unknownBytes] = [0, 0, 0];
  for (const { waste, sentBytes } of files) {
    if (!waste) unknownBytes += sentBytes;
    neededBytes += waste?.neededBytes ?? 0;
    wasteBytes += waste?.wasteBytes ?? 0;
  }
  return {
    sentBytes: neededBytes + wasteBytes,
    neededBytes,
    wasteBytes,
    wasteByCause: addCauses(files.flatMap(({ waste }) => waste?.causes ?? [])),
    unknownBytes,
  };
}
