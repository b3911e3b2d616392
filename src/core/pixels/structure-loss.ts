import { fourthPower } from './fourth-power.js';
import type { Windows } from './windows.js';

/** Steadies the quotient where a picture is smooth, for values from 0 to 255 (K2 = 0.03). */
const steady = (0.03 * 255) ** 2;
/** A quarter of that: what is faint in a smooth place counts as well. */
const faint = (0.015 * 255) ** 2;

/** What windows have lost of their contrast and structure, 0 for nothing. */
export interface StructureLoss {
  /** Of an average window. */
  readonly mean: number;
  /** Of the rows and columns of windows, faint structure too: the 4-norms of both together, 0 to 2. */
  readonly lines: number;
  /** Of the windows that have lost most, faint structure too: the 8-norm. */
  readonly worst: number;
}

/**
 * What is lost of the structure of a picture: 1 minus the likeness of contrast and structure in each window (Z. Wang et al.,
 * "Image quality assessment: from error visibility to structural similarity", IEEE Transactions on Image Processing 13(4),
 * 2004, equation 13 without its luminance). Norms over rows and columns are taken from SSIMULACRA (J. Sneyers, 2017), and
 * those over all windows from SSIMULACRA 2 (2022).
 */
export function structureLossOf(windows: Windows): StructureLoss {
  const { across, down, variances, covariances } = windows;
  const columns = new Float64Array(across);
  let sum = 0;
  let eighths = 0;
  let rowFourths = 0;
  for (let row = 0, at = 0; row < down; row++) {
    let inRow = 0;
    for (let column = 0; column < across; column++, at++) {
      const variance = variances[at]!;
      const covariance = 2 * covariances[at]!;
      sum += Math.max(0, 1 - (covariance + steady) / (variance + steady));
      const loss = Math.max(0, 1 - (covariance + faint) / (variance + faint));
      inRow += loss;
      columns[column]! += loss;
      eighths += fourthPower(loss * loss);
    }
    rowFourths += fourthPower(inRow / across);
  }
  const columnFourths = columns.reduce((all, loss) => all + fourthPower(loss / down), 0);
  return {
    mean: sum / (across * down),
    lines: (rowFourths / down) ** (1 / 4) + (columnFourths / across) ** (1 / 4),
    worst: (eighths / (across * down)) ** (1 / 8),
  };
}
