import sharp from 'sharp';
import type { Looks } from '../core/pixels/looks.js';
import { tileSide } from '../core/pixels/looks.js';

/** The greatest width of a panel, and the gap between panels, in pixels. */
const panelWidth = 410;
const gap = 25;
const head = 44;
/** The depth below which nothing is drawn. */
const maxHeight = 6_000;
const panelCount = 3;

/**
 * A page before, after, and after with what differs marked, side by side.
 *
 * @param before PNG file
 * @param after PNG file
 * @returns a PNG file
 */
export async function looksPicture(before: Buffer, after: Buffer, looks: Looks): Promise<Buffer> {
  const widest = Math.max(looks.before.width, looks.after.width);
  const scale = Math.min(1, panelWidth / widest);
  const highest = Math.max(looks.before.height, looks.after.height);
  const height = Math.min(maxHeight, Math.ceil(highest * scale));
  const across = Math.ceil(widest * scale);
  const panel = (body: Buffer, width: number) =>
    sharp(body).resize({ width: Math.max(1, Math.round(width * scale)) });
  const cropped = async (body: Buffer) => {
    const { width = 1, height: tall = 1 } = await sharp(body).metadata();
    return sharp(body)
      .extract({ left: 0, top: 0, width, height: Math.min(tall, height) })
      .png()
      .toBuffer();
  };
  const was = await cropped(await panel(before, looks.before.width).png().toBuffer());
  const is = await cropped(await panel(after, looks.after.width).png().toBuffer());
  const pale = await sharp(is).greyscale().linear(0.5, 120).png().toBuffer();
  const left = (index: number) => gap + index * (across + gap);
  const width = left(panelCount);
  const words = ['before', 'after', 'what differs']
    .map((name, index) => `<text x="${left(index)}" y="28">${name}</text>`)
    .join('');
  return sharp({ create: { width, height: head + height + gap, channels: 3, background: '#fff' } })
    .composite([
      ...[was, is, pale].map((input, index) => ({ input, left: left(index), top: head })),
      {
        input: Buffer.from(
          `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${head}" font-family="system-ui, Liberation Sans, Arial, sans-serif" font-size="16" font-weight="600">${words}</svg>`,
        ),
        left: 0,
        top: 0,
      },
      { input: marks(looks, scale, across, height), left: left(2), top: head },
    ])
    .png()
    .toBuffer();
}

/** The tiles that differ, as a drawing over the third panel. */
function marks({ tiles }: Looks, scale: number, width: number, height: number): Buffer {
  const side = tileSide * scale;
  const boxes: string[] = [];
  tiles.changed.forEach((one, at) => {
    if (!one) return;
    const x = (at % tiles.across) * side;
    const y = Math.floor(at / tiles.across) * side;
    boxes.push(`<rect x="${x}" y="${y}" width="${side}" height="${side}"/>`);
  });
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><g fill="#b3541e" fill-opacity="0.55">${boxes.join('')}</g></svg>`,
  );
}
