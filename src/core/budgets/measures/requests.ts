import { averageOf } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** Requests over the network. */
export const requests: SurveyMeasure = {
  title: 'requests of a visit',
  unit: 'requests',
  filters: ['type', 'party', 'host'],
  of: (survey, visits, filters) =>
    averageOf(survey, visits, (visit) =>
      survey
        .requestsOf(visit, filters)
        .map(({ url, times }) => ({ url, value: times, placement: null })),
    ),
};
