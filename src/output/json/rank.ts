import type { RankedImage, Ranking } from '../../core/ranking.js';
import type { SurveyHead, SurveyedPage } from '../../core/survey.js';
import { surveyHeadDocument } from './survey-head.js';

/** A ranking as the document `zealous-lynx.rank/1`; `top` limits the images, not the totals. */
export function rankDocument(
  {
    survey,
    pages,
    totals,
    images,
    unplaced,
  }: Ranking & { readonly survey: SurveyHead; readonly pages: readonly SurveyedPage[] },
  top: number,
) {
  return {
    format: 'zealous-lynx.rank/1',
    survey: surveyHeadDocument(survey, pages.length),
    totals,
    images: images.slice(0, top).map(imageDocument),
    imagesLeftOut: Math.max(0, images.length - top),
    unplaced,
  };
}

function imageDocument({ placements, ...image }: RankedImage) {
  return {
    ...image,
    placements: placements.map(({ contentHash: _, ...placement }) => placement),
  };
}
