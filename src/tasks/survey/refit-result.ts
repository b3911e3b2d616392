import type { Size } from '../../core/base/size.js';
import type { Policy } from '../../core/policy/policy.js';
import { chosenAttempt } from '../../core/survey/encoded.js';
import type { Encoded } from '../../core/survey/encoded.js';
import { noSteps } from '../../core/survey/failed-encode.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import { encodeKey } from '../../images/encode-key.js';
import type { Workspace } from '../../store/workspace.js';

/** A file that is less than a tenth wider than its need is not made again: `narrower` would not make it. */
const near = 0.9;

/**
 * The encode of a file that this workspace made itself in an earlier refit, by its content: it is judged against the picture
 * that it was made from, and not against itself, of which more could always be taken away.
 *
 * @returns `undefined` for a file of somebody else, and for one that is too large by now
 */
export function refitResult(
  { encodes }: Pick<Workspace, 'encodes'>,
  file: ImageFile,
  need: Size | null,
  policy: Policy,
): Encoded | undefined {
  if (!need || !file.intrinsic || need.width < near * file.intrinsic.width) return undefined;
  const [made] = encodes.madeAs(file.contentHash, encodeKey(policy));
  if (made?.need?.width !== file.intrinsic.width) return undefined;
  const others = encodes
    .ofSize(made.contentHash, made.need, encodeKey(policy))
    // What is made for old browsers may be smaller because it is less like the picture.
    .filter((one) => (chosenAttempt(one)?.similarity ?? 1) >= policy.similarity);
  const ideal = others.reduce((best, one) => (one.steps.best < best.steps.best ? one : best), made);
  const { nature, format, resultHash, steps } = ideal;
  return {
    ...{ contentHash: file.contentHash, need, nature, format, resultHash, attempts: [] },
    steps: {
      ...noSteps,
      exponent: steps.exponent,
      sameFormat: file.bytes,
      best: Math.min(file.bytes, steps.best),
    },
    problem: null,
  };
}
