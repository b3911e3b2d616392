import { inFirstScreen, isShown, slotOf } from '../box.js';
import type { PlacementProbe } from '../probed.js';
import { selectorOf } from '../selector.js';
import type { ObjectFit } from '../../../core/rendered-size.js';

const fits = new Set(['fill', 'contain', 'cover', 'none', 'scale-down']);

/** `<img>`, with whatever source the browser has chosen for it. */
export const img: PlacementProbe = (document) =>
  [...document.images].flatMap((image) => {
    const url = image.currentSrc || image.src;
    if (!url) return [];
    const style = getComputedStyle(image);
    return {
      kind: 'img' as const,
      selector: selectorOf(image),
      url,
      slot: slotOf(image, style),
      fit: (fits.has(style.objectFit) ? style.objectFit : 'fill') as ObjectFit,
      aboveFold: inFirstScreen(image),
      shown: isShown(image, style),
      loading: image.loading === 'lazy' ? ('lazy' as const) : ('eager' as const),
    };
  });
