import { startTag } from '../../slots/element-markup.js';
import type { Attributes, ElementMarkup } from '../../slots/element-markup.js';

/** One change of an element's markup, as people make it in a template or a content system. */
export type ElementChange =
  | {
      readonly action: 'set';
      readonly element: 'img' | 'source';
      readonly name: string;
      readonly value: string;
    }
  | { readonly action: 'remove'; readonly element: 'img' | 'source'; readonly name: string }
  /** A `<picture>` around the `<img>`. */
  | { readonly action: 'wrap'; readonly element: 'img' }
  /** A start tag, in front of the `<img>`. */
  | { readonly action: 'add' | 'delete'; readonly element: 'source'; readonly tag: string };

/** What turns one element into another that differs in attributes and sources. */
export function changesBetween(before: ElementMarkup, after: ElementMarkup): ElementChange[] {
  const was = before.picture?.sources ?? [];
  const is = after.picture?.sources ?? [];
  const isSame = was.length === is.length && was.every((one, at) => hasSameType(one, is[at]!));
  const tagsOf = (sources: readonly Attributes[]) => sources.map((one) => startTag('source', one));
  return [
    ...(!before.picture && after.picture ? [{ action: 'wrap', element: 'img' } as const] : []),
    ...(isSame
      ? was.flatMap((one, at) => attributeChanges('source', one, is[at]!))
      : [
          ...tagsOf(was).map((tag) => ({ action: 'delete', element: 'source', tag }) as const),
          ...tagsOf(is).map((tag) => ({ action: 'add', element: 'source', tag }) as const),
        ]),
    ...attributeChanges('img', before.attributes, after.attributes),
  ];
}

function hasSameType(one: Attributes, other: Attributes): boolean {
  const typeOf = (attributes: Attributes) => attributes.find(([name]) => name === 'type')?.[1];
  return typeOf(one) === typeOf(other);
}

function attributeChanges(
  element: 'img' | 'source',
  before: Attributes,
  after: Attributes,
): ElementChange[] {
  const [was, is] = [new Map(before), new Map(after)];
  return [
    ...[...is]
      .filter(([name, value]) => was.get(name) !== value)
      .map(([name, value]) => ({ action: 'set', element, name, value }) as const),
    ...[...was.keys()]
      .filter((name) => !is.has(name))
      .map((name) => ({ action: 'remove', element, name }) as const),
  ];
}
