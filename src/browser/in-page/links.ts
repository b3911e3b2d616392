import { resolveAddress } from './resolve.js';

const maxLinks = 5_000;
const maxLength = 4_096;

/** The addresses that the document links to, resolved, each once. */
export function linksOf(): string[] {
  const links = new Set<string>();
  for (const element of document.querySelectorAll('a[href], area[href]')) {
    const href = element.getAttribute('href') ?? '';
    const address = href.length > maxLength ? undefined : resolveAddress(href);
    if (address) links.add(address);
    if (links.size >= maxLinks) break;
  }
  return [...links];
}

/** The addresses of the page's icons: images that no element shows. */
export function iconsOf(): string[] {
  const links = [
    ...document.querySelectorAll<HTMLLinkElement>('link[rel~="icon"], link[rel*="touch-icon"]'),
  ];
  return [`${location.origin}/favicon.ico`, ...links.map(({ href }) => href)].slice(0, 50);
}
