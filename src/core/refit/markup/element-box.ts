import type { PlacedImage } from '../../findings/image/image-case.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import { attributeOf } from '../../slots/element-markup.js';
import type { ElementMarkup } from '../../slots/element-markup.js';
import { parseSizes, wholeViewport } from '../../slots/source-sizes.js';
import type { Size } from '../../base/size.js';
import { hasWidths } from './refitted-element.js';
import type { AttributeValues } from './refitted-element.js';

/** Rules that let the ratio of an element's own markup take part in its layout; the site's own rules take precedence. */
export const boxRules =
  ":where(img[style*='--ratio']) { height: auto; aspect-ratio: var(--ratio); }";

/**
 * Attributes that keep the picture laid out as it was, however many pixels the new files have. The box of the markup
 * stays, where it has one. Else it is that of the original, with its ratio, which whole pixels can only come near. An
 * element that chooses by width is as wide as its `sizes` say: it has the ratio alone.
 */
export function boxOf(
  { file }: Pick<RankedImage, 'file'>,
  placement: PlacedImage,
  element: ElementMarkup,
): AttributeValues {
  const { markup, naturalDensity } = placement;
  const natural = file.intrinsic ?? { width: 1, height: 1 };
  const { width, height } = markup?.declared ?? { width: null, height: null };
  const said = ['width', 'height'].filter((name) => attributeOf(element.attributes, name) !== null);
  const known = [width, height].filter((side) => side !== null);
  // The markup has a box, or one that is no number of pixels: it decides.
  if (known.length === 2 || said.length > known.length) return {};
  const ratio = natural.width / natural.height;
  // Beside a border a ratio would be that of the border's box, which is another one.
  const free = withRatio(element, markup?.framed ? null : natural);
  if (width !== null || height !== null)
    return {
      ...boxText({ width: width ?? height! * ratio, height: height ?? width! / ratio }),
      ...free,
    };
  if (goesBySizes(placement)) return free;
  const box = { width: natural.width / naturalDensity, height: natural.height / naturalDensity };
  return { ...boxText(box), ...free };
}

/** Whether an element chooses by width, and its slot may be as wide as its `sizes` say because they say so. */
function goesBySizes({ markup, curve }: PlacedImage): boolean {
  if (!hasWidths(markup?.srcset ?? null)) return false;
  const said = markup?.sizes ? parseSizes(markup.sizes) : wholeViewport;
  const pieces = curve ?? [];
  return pieces.every(({ from, a, b }) => Math.abs(a * from + b - (said?.(from) ?? 0)) <= 1);
}

/** A box as attributes. */
export function boxText({ width, height }: Size): { width: string; height: string } {
  return { width: String(Math.round(width)), height: String(Math.round(height)) };
}

/**
 * The style of an element with its ratio for the rules above.
 *
 * @param ratio `null` if its height follows from its width by the ratio that the file has
 */
export function withRatio({ attributes }: ElementMarkup, ratio: Size | null): { style: string } {
  const own = (attributeOf(attributes, 'style') ?? '').trim().replace(/;$/, '');
  const added = `--ratio: ${ratio ? `${ratio.width} / ${ratio.height}` : 'auto'}`;
  return { style: own ? `${own}; ${added}` : added };
}
