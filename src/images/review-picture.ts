import sharp from 'sharp';
import type { OverlayOptions } from 'sharp';
import { asMarkup } from '../core/base/markup-text.js';
import type { ReviewCrops } from './review-crops.js';

/** One picture in a review, with the words above it. */
export interface ReviewRow {
  readonly crops: ReviewCrops;
  readonly title: string;
  readonly facts: string;
}

const width = 1280;
const gap = 16;
const head = 64;
const label = 44;
/** The crops at 100 %, and the places where they differ most, enlarged. */
const whole = { width: 420, height: 280 };
const enlarged = { width: 184, height: 280 };
const lefts = [gap, gap * 2 + whole.width];
const spotLefts = [gap * 3 + whole.width * 2, gap * 3.5 + whole.width * 2 + enlarged.width];

/**
 * Pictures before and after, one row each: both at 100 %, then the place where they differ most, enlarged.
 *
 * @returns a PNG file
 */
export async function reviewPicture(rows: readonly ReviewRow[]): Promise<Buffer> {
  const rowHeight = label + whole.height + gap;
  const height = head + rows.length * rowHeight;
  const parts: OverlayOptions[] = [];
  const words: string[] = [
    text(gap, 28, 'Originals and refits, at the size in which they are sent', 18, '600'),
    ...['original', 'refit'].flatMap((name, at) => [
      text(lefts[at]!, 54, name, 13, '400', '#555'),
      text(spotLefts[at]!, 54, `${name}, where they differ most`, 13, '400', '#555'),
    ]),
  ];
  for (const [index, { crops, title, facts }] of rows.entries()) {
    const top = head + index * rowHeight;
    words.push(text(gap, top + 20, title, 14, '600'));
    words.push(text(gap, top + 38, facts, 13, '400', '#555'));
    const sides = [crops.before, crops.after];
    for (const [side, body] of sides.entries()) {
      const shown = {
        left: Math.max(0, Math.floor((crops.size.width - whole.width) / 2)),
        top: Math.max(0, Math.floor((crops.size.height - whole.height) / 2)),
        width: Math.min(whole.width, crops.size.width),
        height: Math.min(whole.height, crops.size.height),
      };
      const input = await sharp(body).extract(shown).png().toBuffer();
      parts.push({ input, left: lefts[side]!, top: top + label });
      const { left, top: up, width: across, height: down } = crops.worst;
      const spot = await sharp(body)
        .extract({ left, top: up, width: across, height: down })
        .resize(enlarged.width, enlarged.height, {
          ...{ fit: 'contain', kernel: 'nearest', background: '#fff', position: 'left top' },
        })
        .png()
        .toBuffer();
      parts.push({ input: spot, left: spotLefts[side]!, top: top + label });
    }
  }
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="system-ui, Liberation Sans, Arial, sans-serif">${words.join('')}</svg>`;
  return sharp({ create: { width, height, channels: 3, background: '#fff' } })
    .composite([...parts, { input: Buffer.from(drawn), left: 0, top: 0 }])
    .png({ compressionLevel: 9 })
    .toBuffer();
}

function text(
  x: number,
  y: number,
  words: string,
  size: number,
  weight: string,
  fill = '#111',
): string {
  return `<text x="${x}" y="${y}" font-size="${size}" font-weight="${weight}" fill="${fill}">${asMarkup(words)}</text>`;
}
