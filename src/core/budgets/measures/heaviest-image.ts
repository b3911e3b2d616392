import { largestOf } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** The bytes of the largest image file that a visit is sent. */
export const heaviestImage: SurveyMeasure = {
  title: 'heaviest image',
  unit: 'bytes',
  filters: ['image', 'party', 'host'],
  of: (survey, visits, filters) =>
    largestOf(survey, visits, (visit) =>
      survey
        .imagesOf(visit, filters)
        .map(({ url, file, placement }) => ({ url, value: file.bytes, placement })),
    ),
};
