import sharp from 'sharp';
import type { EncodedFormat } from '../core/policy/policy.js';
import { similarity } from '../core/pixels/similarity.js';
import type { EncodeAttempt } from '../core/survey/encoded.js';
import { encode } from './encode.js';
import type { Encoding } from './encode.js';
import { readColours } from './picture.js';
import type { Reduced } from './picture.js';

/** An encode with its bytes. */
export interface EncodedPicture extends EncodeAttempt, Encoding {
  readonly isDraft: boolean;
  readonly body: Buffer;
}

/** Encodes a picture in one way and measures how similar the result is. */
export async function encodePicture(
  picture: Reduced,
  frames: number,
  encoding: Encoding,
): Promise<EncodedPicture> {
  const body = await encode(picture.pipeline(), encoding);
  // An exact copy needs no comparison.
  const exact = encoding.quality === null && !encoding.rounded;
  const alike = exact ? 1 : similarity(picture.colours, await readColours(body, frames));
  return { isDraft: false, ...encoding, bytes: body.length, similarity: asShown(alike), body };
}

/** What decides is what is shown: four decimals. */
const asShown = (similarity: number) => Math.round(similarity * 1e4) / 1e4;

/** Encodes a picture without loss, or without a loss that can be seen. */
export async function encodeExactly(
  picture: Reduced,
  frames: number,
  format: EncodedFormat,
  isDrawing: boolean,
): Promise<EncodedPicture> {
  const exact = await encodePicture(picture, frames, { format, quality: null });
  if (!isDrawing || !canRound.has(format)) return exact;
  const rounded = await encodePicture(picture, frames, { format, quality: null, rounded: true });
  return rounded.bytes < exact.bytes && (await isUnseen(picture, rounded.body)) ? rounded : exact;
}

const canRound: ReadonlySet<EncodedFormat> = new Set(['png', 'webp']);

/** The largest difference of any colour of any pixel that is not seen, of 255. */
const unseen = 4;

/** Whether every pixel of an encoded picture looks as it did. */
async function isUnseen(picture: Reduced, body: Buffer): Promise<boolean> {
  const [was, is] = await Promise.all(
    [picture.pipeline(), sharp(body)].map((one) =>
      one.toColourspace('srgb').ensureAlpha().raw().toBuffer(),
    ),
  );
  return was!.every((value, at) => {
    const alpha = at | 3;
    return (was![alpha] === 0 && is![alpha] === 0) || Math.abs(value - is![at]!) <= unseen;
  });
}
