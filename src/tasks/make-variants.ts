import { availableParallelism } from 'node:os';
import pLimit from 'p-limit';
import { noSteps } from '../core/failed-encode.js';
import type { EncodedFormat, Policy } from '../core/policy.js';
import type { MadeVariant, RefitOrder, VariantOrder } from '../core/refit-plan.js';
import type { Encoded } from '../core/survey.js';
import { encodeKey } from '../images/encode-key.js';
import { contentHashOf } from '../images/hash.js';
import type { Workspace } from '../store/workspace.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';

/**
 * Makes the variants of images, each once: what the workspace holds from an earlier refit is not made again. One that
 * is not smaller than the original is left out.
 */
export async function makeVariants(
  workspace: Workspace,
  orders: readonly RefitOrder[],
  policy: Policy,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<MadeVariant[]> {
  const limit = pLimit(availableParallelism());
  const total = orders.reduce((sum, { variants }) => sum + variants.length, 0);
  let done = 0;
  const made = await Promise.all(
    orders.map((order) =>
      limit(async () => {
        if (signal?.aborted || order.variants.length === 0) return [];
        onProgress({ stage: 'images', done, total, doing: order.file.path });
        const results = await variantsOf(workspace, order, policy);
        done += order.variants.length;
        onProgress({ stage: 'images', done, total, doing: order.file.path });
        return results.filter(({ bytes }) => bytes < order.file.from.bytes);
      }),
    ),
  );
  return made.flat();
}

async function variantsOf(
  workspace: Workspace,
  order: RefitOrder,
  policy: Policy,
): Promise<MadeVariant[]> {
  const known = order.variants.map((variant) => knownVariant(workspace, variant, policy));
  const whole = known.flatMap((variant) => variant ?? []);
  if (whole.length === order.variants.length) return whole;
  // The encoders take a while to load.
  const { encodeVariant } = await import('../images/variants.js');
  const { isLossless } = await import('../images/encode.js');
  const { reduce } = await import('../images/picture.js');
  const { image, file, encoded } = order;
  const body = await workspace.bodies.read(file.contentHash);
  const picture = await reduce(body, image.file.frames, file.to);
  const qualities = new Map([[file.to.format, qualityOf(encoded)]]);
  const made: MadeVariant[] = [];
  for (const [index, variant] of order.variants.entries()) {
    const before = known[index];
    if (before) {
      made.push(before);
      continue;
    }
    const { format, size } = variant;
    // What does in one format nearly does in another, and what does at the need nearly does below it.
    const quality = isLossless(format) ? null : (qualities.get(format) ?? qualityOf(encoded));
    const result = await encodeVariant(picture, size, format, quality, policy);
    if (!qualities.has(format)) qualities.set(format, result.quality);
    const { body: bytes, ...trial } = result;
    const resultHash = contentHashOf(bytes);
    await workspace.bodies.keep(resultHash, bytes);
    workspace.encodes.add(
      {
        ...{ contentHash: file.contentHash, need: size, nature: encoded.nature, format },
        ...{ trials: [trial], resultHash, problem: null },
        steps: { ...noSteps, sameFormat: trial.bytes, best: trial.bytes },
      },
      variantKey(format, policy),
    );
    made.push({ ...variant, resultHash, bytes: trial.bytes });
  }
  return made;
}

function knownVariant(
  { encodes, bodies }: Workspace,
  variant: VariantOrder,
  policy: Policy,
): MadeVariant | undefined {
  const { contentHash, size, format } = variant;
  const kept = encodes.get(contentHash, size, variantKey(format, policy));
  if (!kept?.resultHash || !bodies.has(kept.resultHash)) return undefined;
  return { ...variant, resultHash: kept.resultHash, bytes: kept.steps.best };
}

/** Tells variants of one format from the encodes that chose among several. */
function variantKey(format: EncodedFormat, policy: Policy): string {
  return `${format} alone, ${encodeKey(policy)}`;
}

/** The quality that was found to do; `null` where every pixel is kept. */
function qualityOf({ format, steps, trials }: Encoded): number | null {
  return trials.find((one) => one.format === format && one.bytes === steps.best)?.quality ?? null;
}
