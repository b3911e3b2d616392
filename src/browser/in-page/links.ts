import { maxLinks } from './limits.js';
import { resolveAddress } from './resolve.js';

const maxLength = 4_096;

/** The addresses that the document links to, resolved, each once. */
export function linksOf(): string[] {
  return addressesOf((element) => !isOwn(element));
}

/** Links to the document's own path that it asks not to follow: the same page in another state. */
export function ownLinksOf(): string[] {
  return addressesOf(isOwn);
}

function isOwn(element: Element): boolean {
  if (!/(?:^|\s)nofollow(?:\s|$)/i.test(element.getAttribute('rel') ?? '')) return false;
  const address = resolveAddress(element.getAttribute('href') ?? '');
  if (!address || !URL.canParse(address)) return false;
  const { origin, pathname, search } = new URL(address);
  return origin === location.origin && pathname === location.pathname && search !== '';
}

function addressesOf(keep: (element: Element) => boolean): string[] {
  const links = new Set<string>();
  for (const element of document.querySelectorAll('a[href], area[href]')) {
    const href = element.getAttribute('href') ?? '';
    if (href.length > maxLength || !keep(element)) continue;
    const address = resolveAddress(href);
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
