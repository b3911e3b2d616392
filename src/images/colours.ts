import sharp from 'sharp';
import { readColourProfile, shareOutsideSrgb } from '../core/pixels/colour-profile.js';

const sampleSide = 160;
/** The fewest pixels that justify a profile that every visitor downloads. */
const leastShare = 0.005;

/**
 * Whether a picture has colours that sRGB does not have, so that it is to stay in its own colour space with its
 * profile. Pictures for print (CMYK) and those without a profile never are.
 *
 * @throws Error when the bytes cannot be decoded.
 */
export async function needsItsProfile(body: Buffer): Promise<boolean> {
  const { icc } = await sharp(body).metadata();
  const profile = icc && readColourProfile(icc);
  if (!profile) return false;
  const { data, info } = await sharp(body, { ignoreIcc: true })
    .resize(sampleSide, sampleSide, { fit: 'inside', kernel: 'nearest', withoutEnlargement: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return info.channels >= 3 && shareOutsideSrgb(data, info.channels, profile) > leastShare;
}
