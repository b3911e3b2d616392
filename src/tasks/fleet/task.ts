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
);

/** What came of it. An encode is in the workspace. */
export type FleetAnswer =
  { readonly visit: Visit } | { readonly encoded: true } | { readonly failure: string };

/** What a task is, in words. */
export function taskWords(task: FleetTask): string {
  return task.kind === 'visit' ? task.url : `image ${task.contentHash.slice(0, 12)}`;
}

/** Answers have bytes in them, and are read by the very version that wrote them. */
export function packed(answer: FleetAnswer): Buffer {
  return serialize(answer);
}

export function unpacked(bytes: Uint8Array): FleetAnswer {
  return deserialize(bytes) as FleetAnswer;
}
