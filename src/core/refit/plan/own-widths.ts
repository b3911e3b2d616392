import type { PlacedImage } from '../../findings/image/image-case.js';
import { cappedSizesText, sizesText } from '../../slots/sizes-text.js';
import { widestCurve } from './widest-curve.js';
import { sizesError } from '../../slots/sizes-error.js';
import { offeredWidths, parseSrcset } from '../../slots/srcset.js';

/** Whether the site itself offers an `<img>` in several widths. */
export function offersOwnWidths({ kind, markup }: PlacedImage): boolean {
  return kind === 'img' && offeredWidths(parseSrcset(markup?.srcset ?? '')).length > 1;
}

/** A candidate of a `srcset` of widths. */
export interface OwnCandidate {
  readonly url: string;
  /** The width that it declares. */
  readonly width: number;
}

/** The candidates that an element offers by width, resolved, the narrowest first. */
export function ownCandidates({ page, markup }: PlacedImage): OwnCandidate[] {
  return parseSrcset(markup?.srcset ?? '')
    .flatMap(({ url, width }) =>
      width !== null && URL.canParse(url, page) ? [{ url: new URL(url, page).href, width }] : [],
    )
    .sort((a, b) => a.width - b.width);
}

/** Whether `sizes` of a placement differs from its slot by more than candidates are apart. */
export function sizesAreWrong({ shown, markup, curve }: PlacedImage): boolean {
  const pieces = shown && markup ? curve : null;
  return Boolean(pieces?.length && sizesError(markup!, pieces));
}

/**
 * The text that `sizes` of an element should be; `null` where its own is right, or its slot is not known.
 *
 * @param placed one element, or several of one slot, in all views
 * @param enough device pixels to one CSS pixel that dense screens are served; `null` for as many as they have
 */
export function mendedSizes(placed: readonly PlacedImage[], enough: number | null): string | null {
  const curve = widestCurve(placed);
  if (!curve || !placed.some(sizesAreWrong)) return null;
  return enough === null ? sizesText(curve) : cappedSizesText(curve, enough);
}
