import { needFactor, pixelsAt } from '../../policy/need.js';
import type { Policy } from '../../policy/policy.js';
import { PlacedRow } from '../../rank/placed-row.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import type { Ranking } from '../../rank/ranking.js';
import { area } from '../../base/size.js';
import type { PlacedImage } from '../../findings/image/image-case.js';
import { PageElements } from '../../survey/page-elements.js';

/** One element that a page shows images with. */
export function elementKey({ page, selector }: { page: string; selector: string }): string {
  return `${page}\n${selector}`;
}

/** Of elements that choose among several image files, by view: which of them the markup should be made from. */
export interface ElementImages {
  /** Whether an element's markup is to be made from another of its files. */
  readonly isSuperseded: (image: RankedImage, placed: PlacedImage) => boolean;
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
  { images, ledger }: Pick<Ranking, 'images' | 'ledger'>,
  policy: Pick<Policy, 'density'>,
): ElementImages {
  const { facts } = ledger;
  const { placements, files, head } = facts;
  const { file } = placements.columns;
  const elements = new PageElements(facts);
  // Only these can be made smaller, and where two of them have as many pixels, the one that wastes more is taken.
  const ranks = new Int32Array(files.length).fill(-1);
  images.forEach(({ fileIndex, thirdParty, problem, file: { intrinsic } }, rank) => {
    if (!thirdParty && intrinsic && problem === null) ranks[fileIndex] = rank;
  });
  const pixels = Float64Array.from(files, ({ intrinsic }) => (intrinsic ? area(intrinsic) : 0));
  const isBetter = (one: number, other: number) =>
    pixels[one]! > pixels[other]! || (pixels[one] === pixels[other] && ranks[one]! < ranks[other]!);
  // By the first row of an element.
  const masters = new Int32Array(placements.length).fill(-1);
  const canMake = (row: number) => file[row]! >= 0 && ranks[file[row]!]! >= 0;
  for (let row = 0; row < placements.length; row++) {
    const first = elements.first[row]!;
    if (first < 0 || !canMake(row)) continue;
    const known = masters[first]!;
    if (known < 0 || isBetter(file[row]!, known)) masters[first] = file[row]!;
  }
  const densities = new Map(head.views.map(({ name, density }) => [name, density]));
  const widths = new Map<number, Set<number>>();
  for (let row = 0; row < placements.length; row++) {
    const first = elements.first[row]!;
    if (first < 0 || !canMake(row) || masters[first] === file[row]) continue;
    const master = masters[first]!;
    const own = files[master]!.intrinsic!;
    const density = densities.get(placements.visitAt(row).view) ?? 1;
    const factor = needFactor(placements.shapeAt(row), density, own, policy);
    const known = widths.get(master) ?? new Set();
    widths.set(master, known.add(pixelsAt(own, factor).width));
  }
  return {
    isSuperseded: ({ fileIndex }, { row }) => {
      const first = elements.first[row]!;
      const master = first < 0 ? -1 : masters[first]!;
      return master >= 0 && master !== fileIndex;
    },
    inAllViews: (one) => {
      const rows = elements.rowsOf(one.row).filter((row) => file[row]! >= 0);
      return rows.length > 0 ? rows.map((row) => new PlacedRow(placements, row)) : [one];
    },
    moreWidths: ({ fileIndex }) => [...(widths.get(fileIndex) ?? [])],
  };
}
