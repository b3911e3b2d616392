import type { EncodedFormat, Policy } from '../core/policy.js';
import type { ImageFile } from '../core/image-file.js';
import type { Size } from '../core/size.js';
import type { EncodedSteps } from '../core/waste.js';
import { encode } from './encode.js';
import type { Encoding } from './encode.js';
import { natureOf } from './nature.js';
import type { Nature } from './nature.js';

/** The file that an image should be, and what the steps towards it cost. */
export interface NeededFile {
  readonly format: EncodedFormat;
  readonly body: Buffer;
  readonly steps: EncodedSteps;
}

/** What can be written in place of each media type, when its format is to stay. */
const formatOf: Readonly<Record<string, EncodedFormat>> = {
  'image/jpeg': 'jpeg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/gif': 'gif',
  'image/avif': 'avif',
};

/**
 * Really encodes a picture at its need, in its own format and in those that the policy allows for its
 * nature, and keeps the smallest.
 *
 * @param body the bytes of `file`
 * @throws Error when the bytes cannot be decoded to the end.
 */
export async function encodeNeeded(
  body: Buffer,
  file: ImageFile,
  need: Size,
  policy: Policy,
): Promise<NeededFile> {
  const nature = await natureOf(body, file.frames);
  const own = ownEncoding(file, nature);
  const bodies = new Map<Encoding, Buffer>();
  for (const encoding of [own, ...encodingsFor(nature, own, policy)])
    bodies.set(encoding, await encode(body, file.frames, need, encoding, policy));
  const [best, bestBody] = [...bodies].reduce((left, right) =>
    right[1].length < left[1].length ? right : left,
  );
  return {
    format: best.format,
    body: bestBody,
    steps: {
      pixelRatio: await pixelRatio(body, file, need, own, policy),
      sameFormat: bodies.get(own)!.length,
      best: bestBody.length,
    },
  };
}

/** What is left of a file's bytes when its pixels are reduced to the need and nothing else changes. */
async function pixelRatio(
  body: Buffer,
  { intrinsic, frames }: ImageFile,
  need: Size,
  own: Encoding,
  policy: Policy,
): Promise<number> {
  if (!intrinsic || (need.width === intrinsic.width && need.height === intrinsic.height)) return 1;
  const fast = { ...own, fast: true };
  const reduced = await encode(body, frames, need, fast, policy);
  const whole = await encode(body, frames, intrinsic, fast, policy);
  return Math.min(1, reduced.length / whole.length);
}

/** The encoding that keeps the file's own format: lossless stays lossless for drawings. */
function ownEncoding({ mediaType }: ImageFile, nature: Nature): Encoding {
  const format = formatOf[mediaType] ?? 'png';
  return { format, lossless: format === 'png' || (format === 'webp' && nature === 'flat') };
}

function encodingsFor(nature: Nature, own: Encoding, policy: Policy): Encoding[] {
  const lossless = nature === 'flat';
  return policy.formats
    .filter((format) => nature !== 'animation' || format === 'webp' || format === 'gif')
    .filter((format) => !(lossless && format === 'jpeg'))
    .map((format) => ({ format, lossless: lossless || format === 'png' }))
    .filter(({ format }) => format !== own.format);
}
