import { inVectorProcess } from './vector-process.js';

/** Longer ones are left as they are. */
const maxBytes = 1_000_000;

/**
 * A vector image without what nobody sees of it.
 *
 * @returns `null` where nothing smaller draws the same
 */
export async function optimiseVector(body: Buffer): Promise<Buffer | null> {
  return body.length > maxBytes ? null : inVectorProcess('smaller', body);
}
