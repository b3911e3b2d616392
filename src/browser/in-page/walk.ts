import { shadowRootOf } from './element.js';
import type { Pseudo, Spot } from './probed.js';

const pseudos: readonly Exclude<Pseudo, ''>[] = ['::before', '::after', '::marker'];

/** The most elements that are examined on one page. */
const maxElements = 100_000;

/** Every element of a document and of its open shadow roots, and every pseudo-element that is drawn. */
export function* spotsOf(root: Document | ShadowRoot): Generator<Spot> {
  let left = maxElements;
  const roots: (Document | ShadowRoot)[] = [root];
  for (let next = roots.shift(); next; next = roots.shift())
    for (const element of next.querySelectorAll('*')) {
      if (left-- <= 0) return;
      const inside = shadowRootOf(element);
      if (inside) roots.push(inside);
      yield { element, pseudo: '', style: getComputedStyle(element) };
      for (const pseudo of pseudos) {
        const style = getComputedStyle(element, pseudo);
        // A marker is drawn with content "normal"; the others are not drawn at all.
        if (style.content === 'none' || (pseudo !== '::marker' && style.content === 'normal'))
          continue;
        if (pseudo === '::marker' && !/url\(|image-set\(/.test(style.content)) continue;
        yield { element, pseudo, style };
      }
    }
}
