import type { Attributes, ElementMarkup } from '../../core/slots/element-markup.js';

/** A longer element is not kept: nobody pastes it by hand. */
const maxLength = 12_000;
const maxSources = 40;

/** An `<img>` and the `<picture>` around it, as they stand in the page; `null` if they are too long to be kept. */
export function elementMarkupOf(image: HTMLImageElement): ElementMarkup | null {
  const parent = image.parentElement;
  const picture = parent?.localName === 'picture' ? parent : null;
  const sources = [...(picture?.children ?? [])].filter(({ localName }) => localName === 'source');
  const all = [image, ...(picture ? [picture] : []), ...sources];
  if (sources.length > maxSources || lengthOf(all) > maxLength) return null;
  return {
    attributes: attributesOf(image),
    picture: picture && {
      attributes: attributesOf(picture),
      sources: sources.map(attributesOf),
    },
  };
}

function attributesOf(element: Element): Attributes {
  return [...element.attributes].map(({ name, value }) => [name, value] as const);
}

function lengthOf(elements: readonly Element[]): number {
  return elements
    .flatMap((element) => [...element.attributes])
    .reduce((sum, { name, value }) => sum + name.length + value.length, 0);
}
