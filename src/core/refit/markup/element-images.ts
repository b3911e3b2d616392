import { needFactor, pixelsAt } from '../../policy/need.js';
import type { Policy } from '../../policy/policy.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import { area } from '../../base/size.js';
import { groupBy } from '../../base/group-by.js';
import type { PlacedImage } from '../../findings/image/image-case.js';

/** One element that a page shows images with. */
export function elementKey({ page, selector }: { page: string; selector: string }): string {
  return `${page}\n${selector}`;
}

/** Of elements that choose among several image files, by view: which of them the markup should be made from. */
export interface ElementImages {
  /** Whether an element's markup is to be made from another of its files. */
  readonly isSuperseded: (
    image: RankedImage,
    placed: { page: string; selector: string },
  ) => boolean;
  /** An element in all views that show it, with whatever file each of them chose. */
  readonly inAllViews: (placed: PlacedImage) => readonly PlacedImage[];
  /** Widths that the elements made from a file need where they show another one now. */
  readonly moreWidths: (image: RankedImage) => readonly number[];
}

/**
 * Finds elements that show one file in one view and another in the next (`srcset`), and the file of each that has the
 * most pixels: everything that the element needs can be made from it.
 */
export function elementImages(
  images: readonly RankedImage[],
  densityOf: (view: string) => number,
  policy: Pick<Policy, 'density'>,
): ElementImages {
  const shown = images.flatMap((image) =>
    image.thirdParty || !image.file.intrinsic || image.problem !== null
      ? []
      : image.placed
          .filter(({ kind, shown: seen }) => kind === 'img' && seen)
          .map((placement) => ({ image, placement, pixels: area(image.file.intrinsic!) })),
  );
  const placed = groupBy(
    images.flatMap((image) =>
      image.placed.filter(({ kind, shown: seen }) => kind === 'img' && seen),
    ),
    elementKey,
  );
  const masters = new Map<string, { image: RankedImage; pixels: number }>();
  for (const { image, placement, pixels } of shown) {
    const key = elementKey(placement);
    const known = masters.get(key);
    if (!known || pixels > known.pixels) masters.set(key, { image, pixels });
  }
  const widths = new Map<RankedImage, Set<number>>();
  for (const { image, placement } of shown) {
    const master = masters.get(elementKey(placement))!.image;
    if (master === image) continue;
    const own = master.file.intrinsic!;
    const factor = needFactor(placement, densityOf(placement.view), own, policy);
    const known = widths.get(master) ?? new Set();
    widths.set(master, known.add(pixelsAt(own, factor).width));
  }
  return {
    isSuperseded: (image, placed) => {
      const master = masters.get(elementKey(placed));
      return master !== undefined && master.image !== image;
    },
    inAllViews: (one) => placed.get(elementKey(one)) ?? [one],
    moreWidths: (image) => [...(widths.get(image) ?? [])],
  };
}
