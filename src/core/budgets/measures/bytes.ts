import { averageOf, nowhere } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** Bytes on the wire, headers included. */
export const bytes: SurveyMeasure = {
  title: 'bytes of a visit',
  unit: 'bytes',
  filters: ['type', 'party', 'host'],
  of: (survey, visits, filters) =>
    averageOf(survey, visits, (visit) =>
      survey
        .requestsOf(visit, filters)
        .map(({ url, bytes: value }) => ({ url, value, placement: nowhere })),
    ),
};
