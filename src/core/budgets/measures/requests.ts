import { averageOf, nowhere } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** Requests over the network. */
export const requests: SurveyMeasure = {
  title: 'requests of a visit',
  unit: 'requests',
  filters: ['type', 'party', 'host'],
  of: (survey, visits, filters) => {
    const { value, culprit } = averageOf(survey, visits, (visit) =>
      survey
        .requestsOf(visit, filters)
        .map(({ url, times }) => ({ url, value: times, placement: nowhere })),
    );
    // Of requests that are made once each none is to blame.
    return { value, culprit: (culprit?.value ?? 0) > 1 ? culprit : null };
  },
};
