import { averageOf } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** Bytes of images that are sent and not needed. */
export const waste: SurveyMeasure = {
  title: 'waste of a visit',
  unit: 'bytes',
  filters: ['image', 'party', 'host'],
  of: (survey, visits, filters) =>
    averageOf(survey, visits, (visit) =>
      survey.imagesOf(visit, filters).map(({ url, wasteBytes, placement }) => ({
        ...{ url, value: wasteBytes, placement },
      })),
    ),
};
