// Runs in a thread of its own: minifiers and font tools compute for seconds without a pause.
import { constants, setPriority } from 'node:os';
import type { TextFacts } from '../core/survey/resource.js';
import type { StyleRule } from '../core/survey/style-use.js';
import { asWoff2, subsetBytes } from './font-facts.js';
import { loadMinifiers } from './minify.js';
import { loadVectorTool } from './smaller-vector.js';
import { readStyleRules } from './style-rules.js';
import { textFactsOf } from './text-facts.js';
import type { ExamineOptions, ExaminedKind } from './text-facts.js';

// The browser goes first, for which whoever surveys is waiting. On Linux a priority is that of a thread, elsewhere that of the
// whole process (setpriority(2), "C library/kernel differences").
if (process.platform === 'linux') setPriority(constants.priority.PRIORITY_BELOW_NORMAL);

/** What a thread can hand over; a module or a function would end it. */
type Sendable = TextFacts | StyleRule[] | number | null | void;

/** What can be asked of the thread, by name. Bodies arrive as plain bytes. */
const work = {
  prepare: async () => {
    await Promise.all([loadMinifiers(), loadVectorTool()]);
  },
  facts: ({
    contentHash,
    body,
    kind,
    ...options
  }: ExamineOptions & {
    contentHash: string;
    body: Uint8Array;
    kind: ExaminedKind;
  }) => textFactsOf(contentHash, asBuffer(body), kind, options),
  rules: ({ body }: { body: Uint8Array }) =>
    Promise.resolve(readStyleRules(asBuffer(body).toString('utf8'))),
  woff2: ({ body }: { body: Uint8Array }) => asWoff2(asBuffer(body)),
  subset: ({ body, characters }: { body: Uint8Array; characters: string }) =>
    subsetBytes(asBuffer(body), characters),
} satisfies Record<string, (task: never) => Promise<Sendable>>;

export type TextWorker = typeof work;

export const { prepare, facts, rules, woff2, subset } = work;

function asBuffer({ buffer, byteOffset, byteLength }: Uint8Array): Buffer {
  return Buffer.from(buffer, byteOffset, byteLength);
}
