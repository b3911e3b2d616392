import { fourthPower } from './fourth-power.js';
import type { Windows } from './windows.js';

/** The contrast (standard deviation, of 255) that halves what a squared error counts. */
const hiding = 10;

/**
 * The errors that show most: the 8-norm, over windows, of the root of the squared error, which counts the less the more
 * contrast there is to hide it. 0 for the same picture.
 *
 * Source: contrast masking as in PSNR-HVS-M (N. Ponomarenko et al., "On between-coefficient contrast masking of DCT basis
 * functions", VPQM 2007), with the contrast of the window itself in place of its frequencies.
 */
export function maskedError({ differences, variances, covariances }: Windows): number {
  let eighths = 0;
  for (let at = 0; at < differences.length; at++) {
    const difference = differences[at]!;
    const variance = Math.max(0, variances[at]!);
    const squared = Math.max(0, variance - 2 * covariances[at]! + difference * difference);
    eighths += fourthPower(squared / (hiding + Math.sqrt(variance / 2)));
  }
  return (eighths / differences.length) ** (1 / 8);
}
