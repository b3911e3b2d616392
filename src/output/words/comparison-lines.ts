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
  /** What a trial had measured of it; `null` where none was named. */
  readonly tried: Change | null;
  readonly format: (value: number) => string;
  readonly words: Words;
}

/** The numbers of a comparison that are known on either side. */
export function comparisonLines({ comparison, tried }: ComparedPageView): ComparisonLine[] {
  const { markers, requestCount, bytes, bytesByType } = comparison;
  const all: ComparisonLine[] = [
    ...markerNames.map((name) => ({
      title: markerTitles[name],
      change: markers[name],
      tried: tried && tried.markers[name],
      format: (value: number) => formatMarker(name, value),
      words: name === 'layoutShift' ? sizeWords : timeWords,
    })),
    {
      ...{ title: 'requests', change: requestCount, tried: tried && tried.requestCount },
      ...{ format: String, words: sizeWords },
    },
    {
      ...{ title: 'bytes', change: bytes, tried: tried && tried.bytes },
      ...{ format: formatBytes, words: sizeWords },
    },
    ...requestTypes.map((type) => ({
      title: `bytes: ${type}`,
      change: bytesByType[type],
      tried: tried && tried.bytesByType[type],
      format: formatBytes,
      words: sizeWords,
    })),
  ];
  return all.filter(
    ({ title, change: { before, after } }) =>
      (before ?? after) && (!title.startsWith('bytes: ') || before?.max || after?.max),
  );
}
