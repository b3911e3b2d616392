import type { PlacedImage } from '../findings/image/image-case.js';
import { sizesError } from '../slots/sizes-error.js';
import { offeredWidths, parseSrcset } from '../slots/srcset.js';

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
  const pieces = shown && markup ? curve() : null;
  return Boolean(pieces?.length && sizesError(markup!, pieces));
}
