import type { Markup } from '../../core/slots/placement.js';
import { pixels } from './box.js';

const maxText = 2_000;

/** The markup of an `<img>`. */
export function markupOf(image: HTMLImageElement, style: CSSStyleDeclaration): Markup {
  const text = (name: string) => image.getAttribute(name)?.slice(0, maxText) ?? null;
  const source = image.parentElement?.localName === 'picture' ? chosenSource(image) : undefined;
  const priority = image.fetchPriority;
  return {
    alt: text('alt'),
    srcset: source?.srcset.slice(0, maxText) ?? text('srcset'),
    sizes: source?.sizes.slice(0, maxText) || text('sizes'),
    fetchPriority: priority === 'high' || priority === 'low' ? priority : 'auto',
    decoding: image.decoding === 'sync' || image.decoding === 'async' ? image.decoding : 'auto',
    declared: declaredBox(image),
    framed: isFramed(style),
    dimensions:
      (image.hasAttribute('width') && image.hasAttribute('height')) ||
      (!/^auto$/.test(style.aspectRatio) && !/^auto \d/.test(style.aspectRatio)),
  };
}

const edges = ['top', 'right', 'bottom', 'left'].flatMap((side) => [
  `border-${side}-width`,
  `padding-${side}`,
]);

function isFramed(style: CSSStyleDeclaration): boolean {
  if (style.boxSizing !== 'border-box') return false;
  return edges.some((edge) => pixels(style.getPropertyValue(edge)) > 0);
}

/** The attributes `width` and `height`, as HTML reads them where they are whole numbers of pixels. */
export function declaredBox(image: HTMLImageElement): Markup['declared'] {
  const side = (name: string) => {
    const found = /^\s*(\d{1,5})\s*$/.exec(image.getAttribute(name) ?? '');
    return found ? Number(found[1]) : null;
  };
  return { width: side('width'), height: side('height') };
}

/** The `<source>` that the browser chose: the first whose conditions hold. */
function chosenSource(image: HTMLImageElement): HTMLSourceElement | undefined {
  return [...(image.parentElement?.children ?? [])].find(
    (child): child is HTMLSourceElement =>
      child instanceof HTMLSourceElement &&
      child.srcset !== '' &&
      (!child.media || matchMedia(child.media).matches),
  );
}
