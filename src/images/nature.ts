import sharp from 'sharp';
import type { ImageFile } from '../core/survey/image-file.js';
import type { Nature } from '../core/policy/policy.js';

/** A drawing has few colours, however large it is; a photograph has thousands. */
const maxFlatColours = 256;
const sampleSide = 192;

/**
 * Tells drawings from photographs by counting the colours of a sample in which no two pixels are
 * mixed, and opaque ones from those that something shows through.
 */
export async function natureOf(
  body: Buffer,
  { frames, mediaType }: Pick<ImageFile, 'frames' | 'mediaType'>,
): Promise<Nature> {
  if (frames > 1) return 'animation';
  // Whatever was in it, it has gone through a lossy format: there are no flat colours left, nor transparency.
  if (mediaType === 'image/jpeg') return 'photograph';
  const { data, info } = await sharp(body)
    .resize(sampleSide, sampleSide, { fit: 'inside', kernel: 'nearest', withoutEnlargement: true })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { channels } = info;
  const alpha = channels === 2 || channels === 4 ? channels - 1 : -1;
  const colours = new Set<number>();
  let clear = false;
  for (let at = 0; at + channels <= data.length; at += channels) {
    let colour = 0;
    for (let channel = 0; channel < channels; channel++)
      colour = colour * 256 + data[at + channel]!;
    if (colours.size <= maxFlatColours) colours.add(colour);
    clear ||= alpha >= 0 && data[at + alpha]! < 255;
  }
  if (colours.size <= maxFlatColours) return 'drawing';
  return clear ? 'transparent' : 'photograph';
}
