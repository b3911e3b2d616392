import type { RoundView } from '../views/round.js';
import { judgementDocument } from './gate.js';

/** A round of a watch as the document `zealous-lynx.round/1`. */
export function roundDocument(view: RoundView) {
  const { hosts, startedAt, finishedAt, outcome, figures, judgements, troubles, told } = view;
  const survey = figures && { ...figures.survey, views: [] };
  return {
    format: 'zealous-lynx.round/1',
    ...{ hosts, startedAt, finishedAt, outcome },
    survey: figures && {
      ...figures.survey,
      ...{ pages: figures.pages, failedPages: figures.failedPages },
      perVisit: figures.sums,
      findings: figures.findings,
    },
    troubles: troubles.map(({ kind, title }) => ({ kind, title })),
    judgements: judgements.map((row) => judgementDocument(row, { survey })),
    told,
    failedChannels: view.failedChannels,
    next: view.next,
  };
}
