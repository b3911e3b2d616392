import { changesAgree } from '../../core/load/agreement.js';
import type { Change, SessionComparison } from '../../core/load/comparison.js';
import { markerTitles } from '../../core/load/markers.js';
import { decidingMarkers } from '../../core/trial/deciding-markers.js';
import { signed } from './change.js';
import { formatTime } from './units.js';

/** What a trial had said of each marker that decides, what was measured since, and whether they agree. */
export function agreementLines(tried: SessionComparison, measured: SessionComparison): string[] {
  return decidingMarkers.flatMap((name) => {
    const [said, found] = [tried.markers[name], measured.markers[name]];
    if (said.difference === null || found.difference === null) return [];
    return `${markerTitles[name]} ${moved(said)} tried, ${moved(found)} measured: ${verdict(said, found)}`;
  });
}

function moved({ difference, interval }: Change): string {
  const time = (value: number) => signed(value, formatTime);
  const between = interval === null ? '' : ` (${time(interval[0])} … ${time(interval[1])})`;
  return time(difference!) + between;
}

function verdict(said: Change, found: Change): string {
  switch (changesAgree(said, found)) {
    case true:
      return 'they agree';
    case false:
      return found.difference! < said.difference! ? 'it brought more' : 'it brought less';
    case null:
      return 'too few loads to tell whether they agree';
  }
}
