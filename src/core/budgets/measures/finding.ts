import type { SurveyMeasure } from './measure.js';

/** How often a kind of finding occurs. */
export const finding: SurveyMeasure = {
  title: 'findings',
  unit: 'findings',
  filters: ['finding'],
  of: (survey, visits, { finding: id }) => {
    const pages = new Set(visits.map((visit) => survey.visits[visit]!.page));
    const found = survey.findings.filter(
      (one) => one.id === id && one.pages.some((page) => pages.has(page)),
    );
    const [first] = found;
    const page = first?.pages.find((one) => pages.has(one)) ?? null;
    return {
      value: found.length,
      culprit: first ? { url: first.url, page, view: null, placement: null, value: 1 } : null,
    };
  },
};
