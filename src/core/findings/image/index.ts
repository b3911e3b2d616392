import type { Finding, ImageCase, ImageCheck } from './finding.js';
import { ceilingArea } from './ceiling-area.js';
import { ceilingBytes } from './ceiling-bytes.js';
import { ceilingSide } from './ceiling-side.js';
import { eagerBelow } from './eager-below.js';
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

/** Every check there is; a new one is a file here and a word in this list. */
const checks: readonly ImageCheck[] = [
  unreadable,
  placedNowhere,
  mislabelled,
  severalAddresses,
  tooFewPixels,
  wrongSizes,
  srcsetCandidates,
  srcsetMislabelled,
  lateLargest,
  lazyFirstScreen,
  eagerBelow,
  noDimensions,
  noAlternative,
  nameless,
  ceilingArea,
  ceilingBytes,
  ceilingSide,
];

/** What all checks find in one image file. */
export function findingsOf(image: ImageCase): Finding[] {
  return checks.flatMap((check) => check(image) ?? []);
}
