import type { Movement } from '../../core/history/movement.js';
import type { Series } from '../../core/history/series.js';
import type { HistoryView } from '../views/history.js';

/** A site over time as the document `zealous-lynx.history/1`; requests of moves are those of a thousand visits. */
export function historyDocument(view: HistoryView) {
  const { hosts, surveys, thinned, leftOut, series, moved, steps, disagreements } = view;
  return {
    format: 'zealous-lynx.history/1',
    ...{ hosts, thinned, leftOut },
    surveys: surveys.map(({ survey, pages, failedPages, views, sums, findings }) => ({
      ...{ survey, pages, failedPages, views, perVisit: sums, findings },
    })),
    series: series.map(seriesDocument),
    steps: steps.map(({ series: one, step, moved: behind }) => ({
      ...{ series: one.key, page: one.page, conditions: one.conditions },
      ...{ at: step.point.at, label: step.point.label, before: step.before, after: step.after },
      ...{ probability: step.probability, browserChanged: step.browserChanged },
      moved: behind && movementDocument(behind, view.top),
    })),
    moved: moved && movementDocument(moved, Infinity),
    disagreements,
  };
}

function seriesDocument({ key, title, unit, source, page, conditions, points }: Series) {
  return { key, title, unit, source, page, conditions, points };
}

function movementDocument(moved: Movement, most: number) {
  const { files, ...rest } = moved;
  return {
    ...rest,
    files: files.slice(0, most).map(({ key, before, after, change, reasons }) => ({
      ...{ key, before, after, change, reasons },
    })),
  };
}
