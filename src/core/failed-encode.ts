import type { ImageFile } from './image-file.js';
import type { Size } from './size.js';
import type { Encoded } from './survey.js';
import type { EncodedSteps } from './waste.js';

/** Steps that nothing is known of. */
export const noSteps: EncodedSteps = { metadata: 0, exponent: 1, sameFormat: 0, best: 0 };

/** What stands in for an encode where there is none. */
export function failedEncode(
  { contentHash }: ImageFile,
  need: Size | null,
  problem: string,
): Encoded {
  const common = { contentHash, need, trials: [], resultHash: null, problem };
  return { ...common, nature: 'photograph', format: 'png', steps: noSteps };
}
