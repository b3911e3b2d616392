import type { Resources } from '../../survey/resource.js';
import type { SurveyedVisit } from '../../survey/survey.js';
import type { SentFile } from './site-case.js';

/** The visits of a survey, with what each weighs among them. */
export interface WeighedVisits {
  readonly visits: readonly SurveyedVisit[];
  /** Of each; all together are 1. */
  readonly weights: ArrayLike<number>;
}

/** The files that visits were sent, each address once. */
export function sentFiles(
  { list, ofVisit, texts }: Resources,
  { visits, weights }: WeighedVisits,
): SentFile[] {
  const files = new Map<string, SentFile & { pages: string[]; perVisit: number }>();
  ofVisit.forEach((places, visit) => {
    const { page, measured } = visits[visit]!;
    if (!measured) return;
    for (const place of places) {
      const resource = list[place]!;
      const known = files.get(resource.url);
      const isHeavier = !known || resource.transferBytes > known.resource.transferBytes;
      const shown = isHeavier ? resource : known.resource;
      files.set(resource.url, {
        resource: shown,
        text: texts.get(shown.contentHash ?? ''),
        pages: known ? known.pages : [],
        perVisit: (known?.perVisit ?? 0) + weights[visit]!,
      });
      const { pages } = files.get(resource.url)!;
      if (pages.at(-1) !== page) pages.push(page);
    }
  });
  return [...files.values()];
}
