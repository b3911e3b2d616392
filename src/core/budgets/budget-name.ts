import { markerTitles } from '../load/markers.js';
import { isMarker, previous } from './budget.js';
import type { Budget } from './budget.js';
import { surveyMeasures } from './measures/index.js';

/** The name of a budget that a person has given none: its measure and what it is about, in words. */
export function budgetName(budget: Omit<Budget, 'name' | 'reason'>): string {
  const { measure, type, image, party, host, finding } = budget;
  const { page, group, view, network, from, against } = budget;
  const title = isMarker(measure) ? markerTitles[measure] : surveyMeasures[measure].title;
  return [
    measure === 'finding' ? `${finding ?? ''} findings` : title,
    ...(type === undefined ? [] : [`in ${type}`]),
    ...(image === undefined ? [] : [`of ${image} images`]),
    ...(party === undefined ? [] : [party === 'third' ? 'by third parties' : 'by own hosts']),
    ...(host === undefined ? [] : [`from ${host}`]),
    ...(page === undefined ? [] : [`on ${page}`]),
    ...(group === undefined ? [] : [`in group ${group}`]),
    ...(view === undefined ? [] : [`in view ${view}`]),
    ...(network === undefined ? [] : [`over ${network}`]),
    ...(from === 'field' ? ['of visitors'] : []),
    ...(budget.hold === 'upper' ? ['(upper end)'] : []),
    ...(against === undefined
      ? []
      : [
          against === previous
            ? `since the ${isMarker(measure) ? 'loads' : 'survey'} before`
            : `since ${against}`,
        ]),
  ].join(' ');
}
