import { deserialize, serialize } from 'node:v8';
import type { Visit } from '../../browser/visit/visit-result.js';
import type { Size } from '../../core/base/size.js';

/** One piece of work, as a queue has it. */
export type FleetTask = {
  readonly key: string;
  readonly survey: number;
} & (
  | { readonly kind: 'visit'; readonly url: string; readonly view: number }
  | { readonly kind: 'encode'; readonly contentHash: string; readonly need: Size | null }
  | { readonly kind: 'sum'; readonly part: number; readonly closing: string }
);

/** What came of it. Encodes and sums are in the workspace. */
export type FleetAnswer =
  { readonly visit: Visit } | { readonly done: true } | { readonly failure: string };

/** What a task is, in words. */
export function taskWords(task: FleetTask): string {
  if (task.kind === 'visit') return task.url;
  return task.kind === 'encode'
    ? `image ${task.contentHash.slice(0, 12)}`
    : `sums, part ${task.part + 1}`;
}

/** Answers have bytes in them, and are read by the very version that wrote them. */
export function packed(answer: FleetAnswer): Buffer {
  return serialize(answer);
}

export function unpacked(bytes: Uint8Array): FleetAnswer {
  return deserialize(bytes) as FleetAnswer;
}
