import type { Finding, FindingData } from '../finding.js';
import { belowSimilarity } from './below-similarity.js';
import { ceilingArea } from './ceiling-area.js';
import { ceilingBytes } from './ceiling-bytes.js';
import { ceilingSide } from './ceiling-side.js';
import { eagerBelow } from './eager-below.js';
import type { ImageCase, ImageFinding } from './image-case.js';
import { lateLargest } from './late-largest.js';
import { lazyFirstScreen } from './lazy-first-screen.js';
import { mislabelled } from './mislabelled.js';
import { nameless } from './nameless.js';
import { noAlternative } from './no-alternative.js';
import { noDimensions } from './no-dimensions.js';
import { placedNowhere } from './placed-nowhere.js';
import { severalAddresses } from './several-addresses.js';
import { srcsetCandidates } from './srcset-candidates.js';
import { srcsetMislabelled } from './srcset-mislabelled.js';
import { tooFewPixels } from './too-few-pixels.js';
import { unreadable } from './unreadable.js';
import { wrongSizes } from './wrong-sizes.js';

/** Every kind of finding about image files, in the sequence in which they are listed. */
export const imageFindings = [
  unreadable,
  placedNowhere,
  mislabelled,
  severalAddresses,
  tooFewPixels,
  wrongSizes,
  srcsetCandidates,
  srcsetMislabelled,
  belowSimilarity,
  lateLargest,
  lazyFirstScreen,
  eagerBelow,
  noDimensions,
  noAlternative,
  nameless,
  ceilingArea,
  ceilingBytes,
  ceilingSide,
] as const;

export type ImageFindingId = (typeof imageFindings)[number]['id'];

/** The findings of all checks on one image file. */
export function findingsOf(image: ImageCase): Finding<ImageFindingId>[] {
  const kinds: readonly ImageFinding<ImageFindingId, FindingData>[] = imageFindings;
  return kinds.flatMap((kind) => {
    const data = kind.check(image);
    return data === undefined ? [] : { id: kind.id, data };
  });
}
