import { causes } from '../../core/waste/waste.js';
import type { WasteByCause } from '../../core/waste/waste.js';
import { causeTitles } from '../words/causes.js';
import { formatBytes, formatShare } from '../words/units.js';
import { bar, paletteFor } from './style.js';
import type { Screen } from './style.js';

/** Waste as a small bar chart, one line a cause that there is, the largest first. */
export function causeBars(split: WasteByCause, wasteBytes: number, screen: Screen): string[] {
  const { cyan } = paletteFor(screen);
  return causes
    .filter((cause) => split[cause] > 0)
    .sort((a, b) => split[b] - split[a])
    .map((cause) => {
      const bytes = split[cause];
      const length = bar(bytes / wasteBytes, 30).padEnd(30);
      return `  ${causeTitles[cause].padEnd(20)} ${cyan(length)} ${formatBytes(bytes).padStart(8)}  ${formatShare(bytes, wasteBytes).padStart(6)}`;
    });
}
