import { heroShare } from '../../policy/ceilings.js';
import { imageFinding } from './image-case.js';
import type { ImageCase } from './image-case.js';

const kinds = {
  hero: 'a picture as wide as the window',
  small: 'a small picture',
  never: 'any content image',
  alarm: 'a content image (alarm level)',
  content: 'a content image',
} as const;

/** More bytes than an image of its kind should have: a small picture, a content image, one as wide as the viewport. */
export const ceilingBytes = imageFinding({
  id: 'ceiling-bytes',
  title: 'over the byte limit for its kind',
  doer: 'content',
  fix: 'Send it at its need and in a better format; crop it or simplify it if that is not enough.',
  isWork: false,
  docs: {
    meaning:
      'A content image is over 100 kB, a small one over 50 kB, one as wide as the window over 1 MB.',
    why: 'Pages stay light where each image has a limit.',
    computed:
      'By the bytes of the file and the width of its slots. policy.ceilings sets the limits.',
    ignore: 'Where the picture is what people came for.',
  },
  check: (image) => {
    const { file, placements, policy } = image;
    if (!placements.some(({ shown }) => shown)) return undefined;
    const { small, content, alarm, never, hero, smallWidth } = policy.ceilings;
    const width = widestSlot(image);
    const over = (kind: keyof typeof kinds, limit: number) =>
      file.bytes > limit ? { kind, limit, bytes: file.bytes } : undefined;
    if (width.share >= heroShare) return over('hero', hero);
    if (width.pixels <= smallWidth) return over('small', small);
    return over('never', never) ?? over('alarm', alarm) ?? over('content', content);
  },
  describe: ({ kind, limit, bytes }, { bytes: inBytes }) =>
    `the rule of thumb allows ${inBytes(limit)} for ${kinds[kind]}; it has ${inBytes(bytes)}`,
});

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
