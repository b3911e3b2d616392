import sharp from 'sharp';

/** What a picture is like, as far as the choice of its format depends on it. */
export type Nature = 'photograph' | 'flat' | 'animation';

/** A drawing has few colours, however large it is; a photograph has thousands. */
const maxFlatColours = 256;
const sampleSide = 192;

/**
 * Tells drawings from photographs by counting the colours of a sample in which no two pixels are
 * mixed.
 */
export async function natureOf(body: Buffer, frames: number): Promise<Nature> {
  if (frames > 1) return 'animation';
  const { data, info } = await sharp(body)
    .resize(sampleSide, sampleSide, { fit: 'inside', kernel: 'nearest', withoutEnlargement: true })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const colours = new Set<number>();
  for (let at = 0; at + info.channels <= data.length; at += info.channels) {
    let colour = 0;
    for (let channel = 0; channel < info.channels; channel++)
      colour = colour * 256 + data[at + channel]!;
    colours.add(colour);
    if (colours.size > maxFlatColours) return 'photograph';
  }
  return 'flat';
}
