import type { ImageFile } from '../../src/core/survey/image-file.js';

/** An image file of which nothing is out of the ordinary. */
export const plainFile: ImageFile = {
  contentHash: 'a'.repeat(64),
  mediaType: 'image/png',
  intrinsic: { width: 40, height: 30 },
  bytes: 900,
  frames: 1,
  problem: null,
};
