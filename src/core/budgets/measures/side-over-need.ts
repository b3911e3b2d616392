import { largestOf } from './measure.js';
import type { SurveyMeasure } from './measure.js';

/** How many times the longest side of a file is that of its need, where it is the most. */
export const sideOverNeed: SurveyMeasure = {
  title: 'longest side over need',
  unit: 'times',
  filters: ['image', 'party', 'host'],
  of: (survey, visits, filters) =>
    largestOf(survey, visits, (visit) =>
      survey.imagesOf(visit, filters).flatMap(({ url, file, need, placement }) => {
        const [has, needs] = [file.intrinsic, need].map((size) =>
          size ? Math.max(size.width, size.height) : 0,
        ) as [number, number];
        return has > 0 && needs > 0 ? [{ url, value: round(has / needs), placement }] : [];
      }),
    ),
};

function round(ratio: number): number {
  return Math.round(ratio * 100) / 100;
}
