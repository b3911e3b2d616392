import type { Finding, ImageCase, ImageCheck } from './finding.js';
import { mislabelled } from './mislabelled.js';
import { placedNowhere } from './placed-nowhere.js';
import { severalAddresses } from './several-addresses.js';
import { tooFewPixels } from './too-few-pixels.js';
import { unreadable } from './unreadable.js';

/** Every check there is; a new one is a file here and a word in this list. */
const checks: readonly ImageCheck[] = [
  unreadable,
  placedNowhere,
  mislabelled,
  severalAddresses,
  tooFewPixels,
];

/** What all checks find in one image file. */
export function findingsOf(image: ImageCase): Finding[] {
  return checks.flatMap((check) => check(image) ?? []);
}
