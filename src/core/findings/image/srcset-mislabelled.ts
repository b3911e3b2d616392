import { isInDocument } from '../../address/address.js';
import { parseSrcset } from '../../slots/srcset.js';
import { imageFinding } from './image-case.js';

/** Part of the width by which a descriptor may be off. */
const tolerance = 0.02;

/** A width in `srcset` that is not the file's: the browser counts with it, and takes the wrong candidate. */
export const srcsetMislabelled = imageFinding({
  id: 'srcset-mislabelled',
  title: 'srcset names a wrong width',
  doer: 'markup',
  fix: 'Write the real width of the file into srcset.',
  isWork: true,
  docs: {
    meaning: 'A width in srcset is not that of the file.',
    why: 'Browsers choose by what is written, and take the wrong file.',
    computed: 'By the pixels of the file that came.',
    ignore: 'Never.',
  },
  check: ({ file, placements }) => {
    const { intrinsic } = file;
    if (!intrinsic) return undefined;
    for (const { markup, url, page } of placements) {
      if (!markup?.srcset || isInDocument(url)) continue;
      const own = parseSrcset(markup.srcset).find(
        (candidate) =>
          candidate.width !== null &&
          URL.canParse(candidate.url, page) &&
          new URL(candidate.url, page).href === url,
      );
      if (!own?.width || Math.abs(own.width / intrinsic.width - 1) <= tolerance) continue;
      return { declared: own.width, actual: intrinsic.width };
    }
    return undefined;
  },
  describe: ({ declared, actual }) =>
    `srcset says ${declared}w, but the file is ${actual} pixels wide`,
});
