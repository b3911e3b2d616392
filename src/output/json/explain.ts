import type { Fix } from '../../core/refit/fix.js';
import type { PageStory } from '../../core/rank/page-story.js';
import { wholePortions } from '../../core/waste/portion.js';
import type { RankResult } from '../../core/rank/rank-view.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import { imageDocument } from './rank.js';
import { surveyHeadDocument } from './survey-head.js';

/** An image's story as the document `zealous-lynx.explain/1`. */
export function imageStoryDocument(
  { survey, pages }: RankResult,
  image: RankedImage,
  others: readonly RankedImage[],
  fix: Fix,
) {
  const { total } = wholePortions([image.perVisit]);
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    image: {
      ...imageDocument(image, total),
      nature: image.encoded?.nature ?? null,
      trials: image.encoded?.attempts ?? [],
    },
    fix: {
      steps: fix.steps,
      widths: fix.plan.widths,
      plannedBytes: Math.round(fix.plan.bytes),
      sizes: fix.sizes,
      slotCurve: fix.curve,
    },
    others: others.map(({ url, file }) => ({ url, contentHash: file.contentHash })),
  };
}

/** A page's story as the document `zealous-lynx.explain/1`. */
export function pageStoryDocument({ survey, pages }: RankResult, story: PageStory) {
  const { page, images } = story;
  const { rows, total } = wholePortions(images.map(({ perVisit }) => perVisit));
  return {
    format: 'zealous-lynx.explain/1',
    survey: surveyHeadDocument(survey, pages.length),
    page: {
      url: page.url,
      finalUrl: page.finalUrl,
      status: page.status,
      group: page.group,
      visits: page.visits,
      error: page.error,
      bytesByType: page.bytesByType,
      perVisit: total,
      findings: story.findings,
      images: images.map(({ image, placement, firstScreen, shown }, at) => ({
        url: image.url,
        contentHash: image.file.contentHash,
        kind: placement?.kind ?? null,
        selector: placement?.selector ?? null,
        loading: placement?.loading ?? null,
        firstScreen,
        shown,
        bytes: image.file.bytes,
        neededBytes: image.waste?.neededBytes ?? null,
        perVisit: rows[at]!,
        findings: image.findings,
      })),
    },
  };
}
