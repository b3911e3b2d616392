import { isInDocument } from '../../address/address.js';
import { parseSrcset } from '../../slots/srcset.js';
import type { ImageCheck } from './finding.js';

/** Part of the width by which a descriptor may be off. */
const tolerance = 0.02;

/** A width in `srcset` that is not the file's: the browser counts with it, and takes the wrong candidate. */
export const srcsetMislabelled: ImageCheck = ({ file, placements }) => {
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
    return {
      id: 'srcset-mislabelled',
      message: `srcset says ${own.width}w, but the file is ${intrinsic.width} pixels wide`,
    };
  }
  return undefined;
};
