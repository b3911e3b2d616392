import type { Finding, ImageCase, ImageCheck } from './finding.js';
import { eagerBelow } from './eager-below.js';
import { lazyFirstScreen } from './lazy-first-screen.js';
import { mislabelled } from './mislabelled.js';
import { nameless } from './nameless.js';
import { noAlternative } from './no-alternative.js';
import { noDimensions } from './no-dimensions.js';
import { placedNowhere } from './placed-nowhere.js';
import { severalAddresses } from './several-addresses.js';
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
  lazyFirstScreen,
  eagerBelow,
  noDimensions,
  noAlternative,
  nameless,
];

/** What all checks find in one image file. */
export function findingsOf(image: ImageCase): Finding[] {
  return checks.flatMap((check) => check(image) ?? []);
}
