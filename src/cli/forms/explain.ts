import { UsageError } from '../../core/base/errors.js';
import type {
  FamilyView,
  FileView,
  FindingView,
  ImageView,
  PageView,
} from '../../output/views/explain.js';
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

const noCurve = () => {
  throw new UsageError('only an image has a slot curve', {
    hint: 'name an image, or leave --svg out',
  });
};

/** The forms of the story of a slot. */
export const familyForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain-many.js')).drawFamilies,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).familyStoryDocument),
  svg: { describe: svg, draw: noCurve },
} satisfies Forms<FamilyView>;

/** The forms of the story of a finding. */
export const findingForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain-many.js')).drawFinding,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).findingStoryDocument),
  svg: { describe: svg, draw: noCurve },
} satisfies Forms<FindingView>;

/** The forms of the story of a file that is no image. */
export const fileForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain-file.js')).drawFile,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).fileStoryDocument),
  svg: { describe: svg, draw: noCurve },
} satisfies Forms<FileView>;

/** The forms of the story of a page. */
export const pageForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/explain-page.js')).drawPage,
  },
  json: jsonForm(async () => (await import('../../output/json/explain.js')).pageStoryDocument),
  svg: { describe: svg, draw: noCurve },
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
