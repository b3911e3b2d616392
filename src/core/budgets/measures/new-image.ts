import { largestOf } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** The bytes of the largest image file that an earlier survey did not have. */
export const newImage: SurveyMeasure = {
  title: 'heaviest new image',
  unit: 'bytes',
  filters: ['image', 'party', 'host'],
  isRelative: true,
  of: (survey, visits, filters, earlier) => {
    const known = new Set(
      earlier?.visits.flatMap((_, visit) =>
        earlier.imagesOf(visit, {}).map(({ file }) => file.contentHash),
      ),
    );
    return largestOf(survey, visits, (visit) =>
      survey
        .imagesOf(visit, filters)
        .filter(({ file }) => !known.has(file.contentHash))
        .map(({ url, file, placement }) => ({ url, value: file.bytes, placement })),
    );
  },
};
