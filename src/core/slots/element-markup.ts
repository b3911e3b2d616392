import { asMarkup } from '../base/markup-text.js';

/** The attributes of an element by their names, in the order of its start tag. */
export type Attributes = readonly (readonly [name: string, value: string])[];

/** An `<img>` as it stands in the page: what a snippet starts from. */
export interface ElementMarkup {
  readonly attributes: Attributes;
  /** The `<picture>` that it is in; `null` for none. */
  readonly picture: {
    readonly attributes: Attributes;
    /** Its `<source>` elements, in their order. */
    readonly sources: readonly Attributes[];
  } | null;
}

/** The value of an attribute; `null` if it is missing. */
export function attributeOf(attributes: Attributes, name: string): string | null {
  return attributes.find(([own]) => own === name)?.[1] ?? null;
}

/**
 * Attributes with other values: one that is there keeps its place, a new one stands at the end, and `null` removes it.
 */
export function withAttributes(
  attributes: Attributes,
  values: Readonly<Record<string, string | null>>,
): Attributes {
  const kept = attributes.flatMap(([name, value]): (readonly [string, string])[] => {
    const fresh = Object.hasOwn(values, name) ? values[name]! : value;
    return fresh === null ? [] : [[name, fresh]];
  });
  const known = new Set(attributes.map(([name]) => name));
  const added = Object.entries(values).flatMap(([name, value]): (readonly [string, string])[] =>
    known.has(name) || value === null ? [] : [[name, value]],
  );
  return [...kept, ...added];
}

/** The start tag of an element; values are escaped, and on one line. */
export function startTag(name: string, attributes: Attributes): string {
  const words = attributes.map(([attribute, value]) =>
    value === '' && attribute !== 'alt'
      ? attribute
      : `${attribute}="${asMarkup(value.replace(/\s+/g, ' '))}"`,
  );
  return `<${[name, ...words].join(' ')}>`;
}

/** An `<img>` as markup: alone on one line, or one line for each part of its `<picture>`. */
export function elementText({ attributes, picture }: ElementMarkup): string {
  const img = startTag('img', attributes);
  if (!picture) return img;
  return [
    startTag('picture', picture.attributes),
    ...picture.sources.map((source) => `  ${startTag('source', source)}`),
    `  ${img}`,
    '</picture>',
  ].join('\n');
}
