import type { PlacedImage } from '../findings/image/image-case.js';
import { attributeOf } from '../slots/element-markup.js';

/** One compound of a selector: `img`, `#hero`, `.card`, `img.large`. */
const compoundPattern = /^([a-z][\w-]*|\*)?((?:[#.][\w-]+)*)$/i;

/**
 * Whether a selector, as a person writes one, may mean the element of a placement: its last compound is held against the
 * element's name, id and classes, those before it against the path of its own selector. Other parts of the language
 * (attributes, pseudo-classes) match nothing.
 */
export function selectorMatcher(text: string): (placed: PlacedImage) => boolean {
  const parts = text.trim().split(/\s*>\s*|\s+/);
  const compounds = parts.map((part) => compoundPattern.exec(part));
  if (compounds.some((match) => match === null || match[0] === '')) return () => false;
  const [, name = '*', marks = ''] = compounds.at(-1)!;
  const ancestors = parts.slice(0, -1);
  return ({ kind, selector, element: markup }) => {
    if (kind !== 'img' || !markup) return false;
    if (name !== '*' && name.toLowerCase() !== 'img') return false;
    const id = attributeOf(markup.attributes, 'id');
    const classes = new Set((attributeOf(markup.attributes, 'class') ?? '').split(/\s+/));
    const own = marks.match(/[#.][\w-]+/g) ?? [];
    const fits = own.every((mark) =>
      mark.startsWith('#') ? mark.slice(1) === id : classes.has(mark.slice(1)),
    );
    return fits && (own.length > 0 || ancestors.length > 0) && leadsThrough(selector, ancestors);
  };
}

/** Whether the path of an element has some compounds, in their order. */
function leadsThrough(selector: string, ancestors: readonly string[]): boolean {
  const path = selector.split(' > ').slice(0, -1);
  let at = 0;
  return ancestors.every((ancestor) => {
    while (at < path.length && !path[at]!.replace(/:nth-of-type\(\d+\)/, '').endsWith(ancestor))
      at++;
    return at++ < path.length;
  });
}

/** A text that was cut in the middle when it was printed (`#post…img`), as a test of whole ones; `null` if it was not. */
export function cutMatcher(text: string): ((whole: string) => boolean) | null {
  if (!text.includes('…')) return null;
  const parts = text.split('…').map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const pattern = new RegExp(`(?:^|/)${parts.join('.*')}$`, 's');
  return (whole) => pattern.test(whole);
}
