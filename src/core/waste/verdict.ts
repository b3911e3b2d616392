import type { Size } from '../base/size.js';
import { area } from '../base/size.js';
import { isVector } from '../survey/image-file.js';
import type { ImageFile } from '../survey/image-file.js';
import type { Encoded } from '../survey/encoded.js';
import type { ResponseFacts } from '../survey/survey-tables.js';
import { addAmounts } from './portion.js';
import { stepsAt } from './waste.js';
import type { Waste, WasteSteps } from './waste.js';

/** The verdict on one delivery of a file; deliveries of one file under the same circumstances share one. */
export interface Verdict {
  /** Part of the file's width that is enough; 0 where nothing is shown. */
  readonly factor: number;
  /** The need; `null` for vectors, and where nothing is shown. */
  readonly need: Size | null;
  /** `null` where it cannot be judged: a file that cannot be read, or that no element of the page has. */
  readonly waste: Waste | null;
  readonly sentBytes: number;
  readonly thirdParty: boolean;
}

/** Collects verdicts, each that is different once for each file. */
export class VerdictBook {
  readonly verdicts: Verdict[] = [];
  readonly amounts: number[] = [];
  readonly #kinds: number[] = [];
  #first = 0;

  /** From here on it is about another file. */
  turn(): void {
    this.#first = this.verdicts.length;
  }

  /** The index of the verdict on the same file under the same circumstances; −1 for none. */
  find(kind: number, factor: number): number {
    for (let at = this.#first; at < this.verdicts.length; at++)
      if (this.#kinds[at] === kind && this.verdicts[at]!.factor === factor) return at;
    return -1;
  }

  add(kind: number, judged: Verdict): number {
    this.#kinds.push(kind);
    addAmounts(this.amounts, judged.waste, judged.sentBytes);
    return this.verdicts.push(judged) - 1;
  }
}

/** Whether a response was compressed in transit. */
export function isCompressed({ headers }: Pick<ResponseFacts, 'headers'>): boolean {
  return (headers['content-encoding'] ?? 'identity') !== 'identity';
}

/** Bytes of a file each time it is sent; a text counts with its compressed size if it is sent compressed. */
export function sentOnce(
  file: ImageFile,
  encoded: Encoded | undefined,
  compressed: boolean,
): number {
  if (!compressed || !isVector(file) || !encoded || encoded.problem !== null) return file.bytes;
  return Math.min(file.bytes, encoded.steps.sameFormat);
}

/** The steps from a file to its needed bytes at one need; `undefined` without an encode. */
export function stepsFor(
  { intrinsic }: ImageFile,
  encoded: Encoded | undefined,
  need: Size | null,
): WasteSteps | undefined {
  if (!encoded || encoded.problem !== null) return undefined;
  if (!intrinsic || !need || !encoded.need)
    return { ...encoded.steps, pixelRatio: 1, text: encoded.format === 'svg' };
  const [whole, most, here] = [area(intrinsic), area(encoded.need), area(need)];
  return stepsAt(encoded.steps, whole, most, Math.min(most, here));
}
