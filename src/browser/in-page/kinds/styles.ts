import { parentElementOf } from '../element.js';
import { boxOf, pixels } from '../box.js';
import { imageOf, layersOf } from '../css-image.js';
import type { Found, PlacementProbe, Spot } from '../probed.js';
import type { DrawnBox } from '../../../core/slots/rendered-size.js';
import type { ObjectFit } from '../../../core/slots/rendered-size.js';

type Edge = 'border-box' | 'padding-box' | 'content-box';

/** A picture that makes a box of its own, at its natural size. */
const ownBox = () => ({ width: 0, height: 0 });

/** Images in layers that are sized like backgrounds. */
function layered(
  spot: Spot,
  images: string,
  sizes: string,
  origins: string,
  fixed: string,
): Found[] {
  const layers = layersOf(images);
  const size = layersOf(sizes);
  const origin = layersOf(origins);
  const attachment = layersOf(fixed);
  return layers.flatMap((layer, index) => {
    const image = imageOf(layer);
    if (!image) return [];
    const edge = (origin[index % origin.length] ?? 'padding-box') as Edge;
    const toWindow = attachment[index % attachment.length] === 'fixed';
    const area = () =>
      toWindow ? { width: innerWidth, height: innerHeight } : boxOf(canvasOf(spot), edge);
    return {
      url: image.url,
      naturalDensity: image.density,
      slot: area,
      ...sizing(size[index % size.length] ?? 'auto', area()),
    };
  });
}

/** `background-size` as a fit, or as a box where it names a length. */
function sizing(
  text: string,
  area: { width: number; height: number },
): { fit: ObjectFit; drawn: DrawnBox | null } {
  if (text === 'cover' || text === 'contain') return { fit: text, drawn: null };
  const [across = 'auto', down = 'auto'] = text.split(/\s+/);
  const side = (value: string, whole: number) =>
    value === 'auto' ? null : value.endsWith('%') ? (whole * pixels(value)) / 100 : pixels(value);
  const drawn = { width: side(across, area.width), height: side(down, area.height) };
  const natural = drawn.width === null && drawn.height === null;
  return { fit: 'none', drawn: natural ? null : drawn };
}

/** The body's background is painted over the whole canvas when the root has none of its own. */
function canvasOf(spot: Spot): Spot {
  const root = document.documentElement;
  if (spot.pseudo || spot.element !== document.body) return spot;
  const style = getComputedStyle(root);
  return style.backgroundImage === 'none' ? { element: root, pseudo: '', style } : spot;
}

function named(value: string, found: Omit<Found, 'url'>): Found[] {
  return layersOf(value).flatMap((layer) => {
    const image = imageOf(layer);
    return image ? [{ ...found, url: image.url, naturalDensity: image.density }] : [];
  });
}

export const background: PlacementProbe = {
  kind: 'background',
  find: (spot) => {
    const { backgroundImage, backgroundSize, backgroundOrigin, backgroundAttachment } = spot.style;
    if (backgroundImage === 'none') return [];
    return layered(spot, backgroundImage, backgroundSize, backgroundOrigin, backgroundAttachment);
  },
};

export const mask: PlacementProbe = {
  kind: 'mask',
  find: (spot) => {
    const { maskImage, maskSize, maskOrigin } = spot.style;
    return maskImage === 'none' ? [] : layered(spot, maskImage, maskSize, maskOrigin, 'scroll');
  },
};

/** Its slices are drawn at natural size and stretched in between: it needs the pixels it has. */
export const borderImage: PlacementProbe = {
  kind: 'border-image',
  find: ({ style }) =>
    style.borderImageSource === 'none'
      ? []
      : named(style.borderImageSource, { fit: 'none', slot: ownBox }),
};

/** Read from list items only: everything inside them inherits the property. */
export const listStyle: PlacementProbe = {
  kind: 'list-style',
  find: ({ element, pseudo, style }) =>
    pseudo ||
    style.listStyleImage === 'none' ||
    !getComputedStyle(element).display.includes('list-item')
      ? []
      : named(style.listStyleImage, { fit: 'none', slot: ownBox }),
};

/** `content: url()`: an element's is replaced, a pseudo-element's has its natural size. */
export const content: PlacementProbe = {
  kind: 'content',
  find: (spot) => {
    const { content: value } = spot.style;
    if (!/url\(|image-set\(/.test(value)) return [];
    const image = imageOf(value);
    if (!image) return [];
    return [
      {
        url: image.url,
        naturalDensity: image.density,
        fit: spot.pseudo ? 'none' : 'fill',
        slot: spot.pseudo ? ownBox : () => boxOf(spot, 'content-box'),
      },
    ];
  },
};

/** Read where it is set, not where it is inherited. */
export const cursor: PlacementProbe = {
  kind: 'cursor',
  find: ({ element, pseudo, style }) => {
    if (pseudo || !style.cursor.includes('url(')) return [];
    const parent = parentElementOf(element);
    const above = parent && getComputedStyle(parent).cursor;
    return above === style.cursor ? [] : named(style.cursor, { fit: 'none', slot: ownBox });
  },
};
