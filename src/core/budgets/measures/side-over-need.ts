import type { Culprit, SurveyMeasure } from './measure.js';

interface Needed {
  readonly has: number;
  readonly most: number;
  readonly where: Pick<Culprit, 'url' | 'page' | 'view'>;
  readonly placement: () => Culprit['placement'];
}

/**
 * How many times the longest side of a file is that of its need, where it is the most. The need of a file is the largest of
 * the visits that are looked at: one file serves them all.
 */
export const sideOverNeed: SurveyMeasure = {
  title: 'longest side over need',
  unit: 'times',
  filters: ['image', 'party', 'host'],
  of: (survey, visits, filters) => {
    const files = new Map<string, Needed>();
    for (const visit of visits) {
      const { page, view } = survey.visits[visit]!;
      for (const { url, file, need, placement } of survey.imagesOf(visit, filters)) {
        const [has, most] = [file.intrinsic, need].map((size) =>
          size ? Math.max(size.width, size.height) : 0,
        ) as [number, number];
        if (has === 0 || most <= (files.get(url)?.most ?? 0)) continue;
        files.set(url, { has, most, where: { url, page, view }, placement });
      }
    }
    let [value, worst]: [number, Needed | null] = [0, null];
    for (const one of files.values()) {
      const ratio = Math.round((one.has / one.most) * 100) / 100;
      if (ratio > value) [value, worst] = [ratio, one];
    }
    return { value, culprit: worst && { ...worst.where, placement: worst.placement(), value } };
  },
};
