import { deserialize, serialize } from 'node:v8';
import { ExactSums } from '../../core/base/exact-sums.js';
import type { FileSums, FileTable } from '../../core/rank/sums/file-sums.js';
import type { RowSums } from '../../core/rank/sums/row-sums.js';
import type { RowTable } from '../../core/rank/sums/row-table.js';
import type { PolicyRule } from '../../core/policy/allowance.js';
import type { Pictures } from '../../core/survey/pictures.js';
import type { VisitScale } from '../../core/waste/visit-weights.js';
import { PortionSums } from '../../core/waste/portion.js';

/** What the parts of a survey are judged with. */
export interface SumFrame {
  /** Tells one attempt to close a survey from another. */
  readonly closing: string;
  readonly scale: VisitScale;
  readonly factors: Float64Array;
  readonly pictures: Pictures;
}

/** What a ranking tells of a whole survey besides its rows and files. */
export interface SumHead {
  readonly scale: VisitScale;
  readonly unmatchedRules: readonly PolicyRule[];
  /** Content hashes of files whose encodes could not be made then, for want of their bodies: the heaviest of them. */
  readonly missing: readonly string[];
}

/** How each kind of document is written as bytes; they are read by the very version that wrote them. */
export const packed = {
  rows: form(
    ({ portions, shares, ...rest }: RowSums) => ({
      ...{ rest, portions: portions.sums.numbers },
      shares: { ...shares, sums: shares.sums.numbers },
    }),
    ({ rest, portions, shares }): RowSums => ({
      ...rest,
      portions: new PortionSums(0, new ExactSums(0, portions)),
      shares: { ...shares, sums: new ExactSums(0, shares.sums) },
    }),
  ),
  files: form(
    ({ files, waste }: FileSums) => ({ files, waste: waste.numbers }),
    ({ files, waste }): FileSums => ({ files, waste: new ExactSums(0, waste) }),
  ),
  table: plain<RowTable>(),
  fileTable: plain<FileTable>(),
  frame: plain<SumFrame>(),
  head: plain<SumHead>(),
  hashes: plain<readonly string[]>(),
};

function form<Value, Plain>(toPlain: (value: Value) => Plain, toValue: (plain: Plain) => Value) {
  return {
    write: (value: Value): Buffer => serialize(toPlain(value)),
    read: (bytes: Uint8Array): Value => toValue(deserialize(bytes) as Plain),
  };
}

function plain<Value>() {
  return form<Value, Value>(
    (value) => value,
    (value) => value,
  );
}
