import { keptAddress } from '../../core/address/address.js';

/** Names of attributes in which pages keep the address of an image for a script. */
const keeping = /(?:^|-)(?:src|srcset|bg|background|image|img|lazy|original|url)(?:-|$)/;
const imageEnding = /\.(?:jpe?g|png|gif|webp|avif|svg)(?:[?#]|$)/i;

/** A placeholder in an address of its own (`data:`) is shorter than this. */
const longestPlaceholder = 2_000;

/** Whether the document has images that only a script can load: that have no address yet, or keep it elsewhere. */
export function holdsImagesBack(): boolean {
  for (const { currentSrc } of document.images)
    if (
      currentSrc === '' ||
      (currentSrc.startsWith('data:') && currentSrc.length < longestPlaceholder)
    )
      return true;
  for (const { textContent } of document.querySelectorAll('noscript'))
    if (textContent?.includes('<img')) return true;
  const attributes = document.evaluate('//@*[starts-with(name(), "data-")]', document);
  for (let node = attributes.iterateNext(); node; node = attributes.iterateNext()) {
    const { name, value } = node as Attr;
    if (imageEnding.test(value) || (keeping.test(name.slice('data-'.length)) && value !== ''))
      return true;
  }
  return false;
}

/** The addresses of the images that the browser itself loads when they are scrolled to. */
export function lazyAddresses(): string[] {
  return [...document.images]
    .filter(({ loading, currentSrc }) => loading === 'lazy' && currentSrc !== '')
    .map(({ currentSrc }) => keptAddress(currentSrc));
}
