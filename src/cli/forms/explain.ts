import { UsageError } from '../../core/base/errors.js';
import type { ImageView, PageView } from '../../output/views/explain.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

const svg = 'Draw the slot curve of the image into this SVG file';

/** The forms of the story of an image. */
export const imageForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain.js')).drawImage,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).imageStoryDocument),
  svg: { describe: svg, draw: slotCurve },
} satisfies Forms<ImageView>;

/** The forms of the story of a page. */
export const pageForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain.js')).drawPage,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).pageStoryDocument),
  svg: {
    describe: svg,
    draw: () => {
      throw new UsageError('a page has no slot curve', {
        hint: 'name an image, or leave --svg out',
      });
    },
  },
} satisfies Forms<PageView>;

/** @throws UsageError when no page that was swept shows the image. */
async function slotCurve({ image, fix, result, density }: ImageView): Promise<string[]> {
  if (!fix.curve)
    throw new UsageError('the image has no slot curve: no page that was swept shows it', {
      hint: 'leave --svg out',
    });
  const { slotCurveSvg } = await import('../../output/svg/slot-curve.js');
  const picture = {
    title: image.url,
    pieces: fix.curve,
    views: result.survey.views,
    density,
    intrinsic: image.file.intrinsic?.width ?? null,
  };
  return [slotCurveSvg(picture)];
}
