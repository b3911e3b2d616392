import type { Region } from '../../base/region.js';
import { chosenWidth } from '../../slots/srcset.js';

/** An element that moved when markup was tried in its page. */
export interface Moved {
  readonly selector: string;
  /** CSS pixels of the page. */
  readonly from: Region;
  readonly to: Region;
}

/** An `<img>` as a page lays it out. */
export interface LaidOutImage {
  readonly box: Region;
  /** CSS pixels across that the picture is drawn in, parts that are cut off included. */
  readonly drawnWidth: number;
  /** The address that the browser chose. */
  readonly url: string;
  /** Pixels across of its file; 0 if it did not arrive. */
  readonly pixels: number;
  /** Whether its file arrived. */
  readonly isLoaded: boolean;
}

/** What came of markup that was put into a page in place of an element. */
export interface MarkupTry {
  readonly before: LaidOutImage;
  readonly after: LaidOutImage;
  /** Elements around it that moved, the first few of them. */
  readonly moved: readonly Moved[];
}

/** A file that may be chosen, with its pixels. */
export interface KnownFile {
  readonly width: number;
  /** The widths that are offered together with it, ascending. */
  readonly offered: readonly number[];
}

/** What is known of the files that an element may choose. */
export interface TriedFiles {
  readonly fileAt: (url: string) => KnownFile | undefined;
  /** Device pixels to one CSS pixel in this view, and those that the policy allows for. */
  readonly density: number;
  readonly enough: number;
}

/** CSS pixels by which layout may differ. */
export const layoutTolerance = 1;
/** A picture of fewer pixels than this part of what was shown before looks softer. */
const softness = 0.97;
/** CSS pixels by which the slot and the text of `sizes` may differ. */
const sizesTolerance = 1.5;

/** Why markup must not be handed out; `null` if it holds. */
export function problemOf(
  { before, after, moved }: MarkupTry,
  { fileAt, density, enough }: TriedFiles,
): string | null {
  if (!after.isLoaded) return `its file does not arrive (${after.url})`;
  if (differs(before.box, after.box))
    return `its box changes from ${boxWords(before.box)} to ${boxWords(after.box)}`;
  const [first] = moved;
  if (first) return `${first.selector} moves from ${boxWords(first.from)} to ${boxWords(first.to)}`;
  const [was, is] = [fileAt(before.url), fileAt(after.url)];
  if (!is) return `it chooses a file that is not offered (${after.url})`;
  const need = after.drawnWidth * Math.min(density, enough);
  if (is.width < softness * Math.min(need, was?.width ?? need))
    return `it gets softer: ${is.width} pixels across where ${Math.ceil(need)} are shown`;
  const meant = [-sizesTolerance, 0, sizesTolerance].map((off) => {
    const size = Math.max(1, after.drawnWidth + off);
    // `sizes` may have dense screens choose as if they had no more pixels than the policy says.
    return [density, Math.min(density, enough)].map((one) => chosenWidth(is.offered, size * one));
  });
  const isMeant = is.offered.length < 2 || meant.flat().includes(is.width);
  return isMeant ? null : `it chooses ${is.width} pixels across, and is to choose ${meant[1]![0]}`;
}

/** Whether a box is elsewhere or of another size, by more than a pixel. */
export function differs(one: Region, other: Region): boolean {
  return (['left', 'top', 'width', 'height'] as const).some(
    (side) => Math.abs(one[side] - other[side]) > layoutTolerance,
  );
}

function boxWords({ left, top, width, height }: Region): string {
  const [across, down, x, y] = [width, height, left, top].map(Math.round);
  return `${across}×${down} at ${x}, ${y}`;
}
