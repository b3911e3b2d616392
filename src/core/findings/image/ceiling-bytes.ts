import { heroShare } from '../../policy/ceilings.js';
import { grouped } from '../../base/thousands.js';
import type { ImageCase, ImageCheck } from './finding.js';

/** More bytes than an image of its kind should have: a small picture, a content image, one as wide as the viewport. */
export const ceilingBytes: ImageCheck = (image) => {
  const { file, placements, policy } = image;
  if (!placements.some(({ shown }) => shown)) return undefined;
  const { small, content, alarm, never, hero } = policy.ceilings;
  const width = widestSlot(image);
  const says = (limit: number, words: string) => ({
    id: 'ceiling-bytes',
    message: `${words} has at most ${grouped(limit)} bytes by the rule of thumb; it has ${grouped(file.bytes)}`,
  });
  if (width.share >= heroShare)
    return file.bytes > hero ? says(hero, 'a picture as wide as the window') : undefined;
  if (width.pixels <= policy.ceilings.smallWidth)
    return file.bytes > small ? says(small, 'a small picture') : undefined;
  if (file.bytes > never) return says(never, 'a content image, whatever it shows,');
  if (file.bytes > alarm) return says(alarm, 'an alarm: a content image');
  return file.bytes > content ? says(content, 'a content image') : undefined;
};

/** The widest slot in CSS pixels, and the largest part of a viewport's width that any takes. */
export function widestSlot({ placements, views }: ImageCase): { pixels: number; share: number } {
  return placements
    .filter(({ shown }) => shown)
    .reduce(
      (widest, { slot, view }) => ({
        pixels: Math.max(widest.pixels, slot.width),
        share: Math.max(widest.share, slot.width / (views.get(view)?.width ?? Infinity)),
      }),
      { pixels: 0, share: 0 },
    );
}
