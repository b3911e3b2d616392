import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import { isFetched } from '../address/address.js';
import type { RankedImage } from '../rank/ranked-image.js';
import { renderedSize } from '../slots/rendered-size.js';
import type { SurveyedPage } from '../survey/survey.js';
import type { Size } from '../base/size.js';

/** An element that shows a small image. */
export interface SheetPlace {
  readonly page: string;
  readonly selector: string;
}

/** A small image that can be joined with others. */
export interface SheetImage {
  readonly image: RankedImage;
  /** Whole CSS pixels, the largest that any of the pages draws. */
  readonly size: Size;
  /** The elements that show it, each once. */
  readonly places: readonly SheetPlace[];
  readonly alt: string | null;
}

/** Larger pictures are no icons: joined, they would hold one another up. */
export const largestSide = 96;

/** The pages that a name means: those of a group, or those with such addresses. */
export function pagesNamed(name: string, pages: readonly SurveyedPage[]): SurveyedPage[] {
  const isGroup = textMatcher(name);
  const isAddress = addressMatcher(name);
  return pages.filter(({ url, group }) => (group !== null && isGroup(group)) || isAddress(url));
}

/**
 * The images of some pages that can be joined into one sheet: on the site's own hosts, not animated, and drawn
 * as small elements wherever these pages show them.
 */
export function sheetCandidates(
  images: readonly RankedImage[],
  pages: readonly SurveyedPage[],
): SheetImage[] {
  const among = new Set(pages.map(({ url }) => url));
  return images.flatMap((image): SheetImage[] => {
    const { file, thirdParty, problem, url } = image;
    if (thirdParty || problem !== null || file.frames > 1 || !isFetched(url)) return [];
    const shown = image.placed.filter(({ page, shown: seen }) => seen && among.has(page));
    if (shown.length === 0 || shown.some(({ kind }) => kind !== 'img')) return [];
    const drawn = shown.map((placement) => renderedSize(placement, file.intrinsic ?? undefined));
    const size = {
      width: Math.ceil(Math.max(...drawn.map(({ width }) => width))),
      height: Math.ceil(Math.max(...drawn.map(({ height }) => height))),
    };
    if (Math.max(size.width, size.height) > largestSide || Math.min(size.width, size.height) < 1)
      return [];
    const alt = shown.find(({ markup }) => markup?.alt)?.markup?.alt ?? null;
    const places = new Map(
      shown.map(({ page, selector }) => [`${page}\n${selector}`, { page, selector }]),
    );
    return [{ image, size, places: [...places.values()], alt }];
  });
}
