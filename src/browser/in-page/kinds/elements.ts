import { parseSrcset } from '../../../core/slots/srcset.js';
import { boxOf } from '../box.js';
import { elementMarkupOf } from '../element-markup.js';
import { declaredBox, markupOf } from '../markup.js';
import type { Found, PlacementProbe, Spot } from '../probed.js';
import { resolveAddress } from '../resolve.js';
import type { ObjectFit } from '../../../core/slots/rendered-size.js';

const fits = new Set(['fill', 'contain', 'cover', 'none', 'scale-down']);

/** An element whose content is the image. */
function replaced(spot: Spot, url: string): Found[] {
  const address = url && resolveAddress(url);
  if (!address) return [];
  const { objectFit } = spot.style;
  return [
    {
      url: address,
      fit: (fits.has(objectFit) ? objectFit : 'fill') as ObjectFit,
      slot: () => boxOf(spot, 'content-box'),
    },
  ];
}

const onElement = (
  kind: PlacementProbe['kind'],
  find: (spot: Spot & { element: Element }) => readonly Found[],
): PlacementProbe => ({ kind, find: (spot) => (spot.pseudo ? [] : find(spot)) });

/** `<img>`, with whatever source the browser has chosen for it. */
export const img = onElement('img', (spot) => {
  const { element } = spot;
  if (!(element instanceof HTMLImageElement)) return [];
  return replaced(spot, element.currentSrc || element.src).map((found) => ({
    ...found,
    loading: element.loading === 'lazy' ? 'lazy' : 'eager',
    markup: markupOf(element, spot.style),
    element: elementMarkupOf(element),
    naturalDensity: densityOf(element),
    ratio: () => ratioOf(element),
  }));
});

/** Width to height of a picture: of the file once it has arrived, from the markup until then. */
function ratioOf(image: HTMLImageElement): number | null {
  if (image.naturalHeight > 0) return image.naturalWidth / image.naturalHeight;
  const { width, height } = declaredBox(image);
  return width && height ? width / height : null;
}

/** `<input type="image">`. */
export const input = onElement('input', (spot) => {
  const { element } = spot;
  return element instanceof HTMLInputElement && element.type === 'image'
    ? replaced(spot, element.src)
    : [];
});

/** The picture shown in place of a video until it plays. */
export const poster = onElement('poster', (spot) => {
  if (!(spot.element instanceof HTMLVideoElement)) return [];
  // A poster keeps its ratio inside the video's box, as the video itself would.
  return replaced(spot, spot.element.poster).map((found) => ({
    ...found,
    fit: found.fit === 'fill' ? 'contain' : found.fit,
  }));
});

/** `<image>` in an SVG that is part of the page. */
export const svgImage = onElement('svg-image', (spot) => {
  const { element } = spot;
  if (!(element instanceof SVGImageElement)) return [];
  const fit = element.preserveAspectRatio.baseVal;
  const whole = fit.align === SVGPreserveAspectRatio.SVG_PRESERVEASPECTRATIO_NONE;
  const slice = fit.meetOrSlice === SVGPreserveAspectRatio.SVG_MEETORSLICE_SLICE;
  return replaced(spot, element.href.baseVal).map((found) => ({
    ...found,
    fit: whole ? 'fill' : slice ? 'cover' : 'contain',
    slot: () => {
      const { width, height } = element.getBoundingClientRect();
      return { width, height };
    },
  }));
});

/** `<object>` that shows an image. */
export const object = onElement('object', (spot) =>
  spot.element instanceof HTMLObjectElement && looksLikeImage(spot.element.type, spot.element.data)
    ? replaced(spot, spot.element.data)
    : [],
);

/** `<embed>` that shows an image. */
export const embed = onElement('embed', (spot) =>
  spot.element instanceof HTMLEmbedElement && looksLikeImage(spot.element.type, spot.element.src)
    ? replaced(spot, spot.element.src)
    : [],
);

function looksLikeImage(type: string, url: string): boolean {
  return type.startsWith('image/') || /\.(?:jpe?g|png|gif|webp|avif|svg)(?:[?#]|$)/i.test(url);
}

/** Pixels of the file to a CSS pixel, from the chosen candidate; 1 if it names none. */
function densityOf(image: HTMLImageElement): number {
  const candidates = parseSrcset(image.srcset);
  const chosen = candidates.find(({ url }) => resolveAddress(url) === image.currentSrc);
  return chosen?.density ?? 1;
}
