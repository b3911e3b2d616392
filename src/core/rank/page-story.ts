import type { Finding } from '../findings/finding.js';
import { pageFindingsOf } from '../findings/page/index.js';
import type { Placement } from '../slots/placement.js';
import { unmuted } from '../policy/mutes.js';
import type { Policy } from '../policy/policy.js';
import { sumOf } from '../waste/portion.js';
import type { Portion } from '../waste/portion.js';
import type { RankedImage } from './ranked-image.js';
import type { SurveyedPage } from '../survey/survey.js';

/** One image of a page, where it first appears. */
export interface PageImage {
  readonly image: RankedImage;
  /** The element that shows it first; `null` where none does. */
  readonly placement: Placement | null;
  /** Views in which some of it is in the first screen, and views in which it is shown at all. */
  readonly firstScreen: readonly string[];
  readonly shown: readonly string[];
  /** What an average visit to this page has of it. */
  readonly perVisit: Portion;
}

/** What a survey knows of the images of one page. */
export interface PageStory {
  readonly page: SurveyedPage;
  /** In document order; those that no element shows come last. */
  readonly images: readonly PageImage[];
  readonly perVisit: Portion;
  readonly findings: readonly Finding[];
}

/**
 * @param images a ranking of the visits to this page alone
 * @param placements those of the page, as they stand in the document
 */
export function pageStoryOf(
  page: SurveyedPage,
  images: readonly RankedImage[],
  placements: readonly Placement[],
  policy: Policy,
): PageStory {
  const order = new Map<string, number>();
  for (const { contentHash } of placements)
    if (contentHash !== null && !order.has(contentHash)) order.set(contentHash, order.size);
  const placeOf = ({ file }: RankedImage) => order.get(file.contentHash) ?? order.size;
  const told = images
    .toSorted((a, b) => placeOf(a) - placeOf(b))
    .map((image): PageImage => {
      const { placed } = image;
      const views = (some: readonly Placement[]) => [...new Set(some.map(({ view }) => view))];
      const shown = placed.filter((placement) => placement.shown);
      return {
        image,
        placement: shown[0] ?? placed[0] ?? null,
        firstScreen: views(shown.filter(({ aboveFold }) => aboveFold)),
        shown: views(shown),
        perVisit: image.perVisit,
      };
    });
  const found = pageFindingsOf({ page, placements, policy });
  const findings = unmuted(found, policy.mute, () => ({
    urls: [page.url],
    groups: [page.group ?? page.url],
  }));
  return { page, images: told, perVisit: sumOf(images.map(({ perVisit }) => perVisit)), findings };
}
