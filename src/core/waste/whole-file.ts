import { isInDocument } from '../address/address.js';
import type { Size } from '../base/size.js';
import type { Encoded } from '../survey/encoded.js';
import type { ImageFile } from '../survey/image-file.js';
import type { ResponseFacts } from '../survey/survey-tables.js';
import { isCompressed, sentOnce, stepsFor } from './verdict.js';
import { splitWaste } from './waste.js';
import type { Waste } from './waste.js';

/** How a file is sent, over all visits. */
export interface FileSent {
  /** Addresses that can be requested before those that exist only in a document. */
  readonly urls: readonly string[];
  /** How often each of them is sent in the visit that asks for it most often. */
  readonly times: ReadonlyMap<string, number>;
  /** Whether all its answers were compressed in transit. */
  readonly compressed: boolean;
}

/** The circumstances of a file, over all visits. */
export interface FileCase extends Pick<FileSent, 'times' | 'compressed'> {
  readonly isPlaced: boolean;
  readonly isShown: boolean;
  /** A rule lets it be as it is. */
  readonly isExempt: boolean;
  readonly need: Size | null;
}

/** What answers say of the file that they carried. */
export function sentOf(
  answers: readonly Pick<ResponseFacts, 'url' | 'sent' | 'headers'>[],
): FileSent {
  const times = new Map<string, number>();
  for (const { url, sent = 1 } of answers) times.set(url, Math.max(times.get(url) ?? 1, sent));
  return {
    urls: inOrder(times.keys()),
    times,
    compressed: answers.length > 0 && answers.every(isCompressed),
  };
}

/** Addresses that can be requested before those that exist only in a document. */
export function inOrder(urls: Iterable<string>): string[] {
  return [...urls].sort(
    (a, b) => Number(isInDocument(a)) - Number(isInDocument(b)) || (a < b ? -1 : 1),
  );
}

/** Whether the waste of a file is known: the file can be read and an element shows it. */
export function canJudge(isPlaced: boolean, isShown: boolean, problem: string | null): boolean {
  return isPlaced && (problem === null || !isShown);
}

/** The need of a file. @param most the largest over its placements */
export function wholeNeed(encoded: Encoded | undefined, most: Size | null): Size | null {
  if (!encoded?.need || encoded.problem !== null) return encoded?.need ?? null;
  return most ?? encoded.need;
}

/** The waste of a file, once for each of its addresses; `null` when it cannot be read, or no element shows it. */
export function judgeWholeFile(
  file: ImageFile,
  encoded: Encoded | undefined,
  { times, compressed, isPlaced, isShown, isExempt, need }: FileCase,
): Pick<Waste, 'sentBytes'> & { readonly waste: Waste | null } {
  let sum = 0;
  for (const [url, sent] of times) if (!isInDocument(url)) sum += sent;
  const fetched = Math.max(1, sum);
  const once = sentOnce(file, encoded, compressed);
  const problem = file.problem ?? encoded?.problem ?? null;
  const steps = isExempt ? undefined : stepsFor(file, encoded, need);
  const waste = canJudge(isPlaced, isShown, problem)
    ? splitWaste(once, fetched, isShown, steps)
    : null;
  return { sentBytes: once * fetched, waste };
}
