import type { ImageFile } from './image-file.js';
import type { Size } from '../base/size.js';
import type { Encoded } from './encoded.js';
import type { EncodedSteps } from './encoded.js';

/** Steps that nothing is known of. */
export const noSteps: EncodedSteps = { metadata: 0, exponent: 1, sameFormat: 0, best: 0 };

/** The estimate used if there is no encode. */
export function failedEncode(
  { contentHash }: ImageFile,
  need: Size | null,
  problem: string,
): Encoded {
  const common = { contentHash, need, attempts: [], resultHash: null, problem };
  return { ...common, nature: 'photograph', format: 'png', steps: noSteps };
}
