import type { Change } from '../../core/load/comparison.js';
import { markerNames, markerTitles } from '../../core/load/markers.js';
import { requestTypes } from '../../core/load/request.js';
import type { ComparedPageView } from '../views/compare.js';
import { formatMarker, sizeWords, timeWords } from './change.js';
import type { Words } from './change.js';
import { formatBytes } from './units.js';

/** One number of a comparison: its name and its format. */
export interface ComparisonLine {
  readonly title: string;
  readonly change: Change;
  readonly format: (value: number) => string;
  readonly words: Words;
}

/** The numbers of a comparison that are known on either side. */
export function comparisonLines({ comparison }: ComparedPageView): ComparisonLine[] {
  const { markers, requestCount, bytes, bytesByType } = comparison;
  const all: ComparisonLine[] = [
    ...markerNames.map((name) => ({
      title: markerTitles[name],
      change: markers[name],
      format: (value: number) => formatMarker(name, value),
      words: name === 'layoutShift' ? sizeWords : timeWords,
    })),
    { title: 'requests', change: requestCount, format: String, words: sizeWords },
    { title: 'bytes', change: bytes, format: formatBytes, words: sizeWords },
    ...requestTypes.map((type) => ({
      title: `bytes: ${type}`,
      change: bytesByType[type],
      format: formatBytes,
      words: sizeWords,
    })),
  ];
  return all.filter(
    ({ title, change: { before, after } }) =>
      (before ?? after) && (!title.startsWith('bytes: ') || before?.max || after?.max),
  );
}
