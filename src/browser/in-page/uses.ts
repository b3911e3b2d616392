import { attributesOf } from './element.js';
import { keptAddress } from '../../core/address/address.js';
import type { NamingFile, PictureUse, UseKind } from '../../core/survey/picture-use.js';
import { resolveAddress } from './resolve.js';

const maxUses = 2_000;
const maxLength = 4_096;
/** Structured data longer than this is not searched to its end. */
const maxData = 200_000;

const pictureEnding = /\.(?:jpe?g|png|gif|webp|avif|svg|tiff?)$/i;

/** Attributes from which scripts load the image that an element shows: they are what it shows. */
const ofTheElement = /^(?:src|srcset|data-(?:lazy-?)?(?:src|srcset|original))$/;

/** The pictures that the document names without showing them there. */
export function usesOf(): Omit<PictureUse, 'page'>[] {
  const uses = new Map<string, Omit<PictureUse, 'page'>>();
  const add = (kind: UseKind, text: string | null | undefined) => {
    const address = text && text.length <= maxLength ? resolveAddress(text.trim()) : undefined;
    if (!address || !/^https?:/.test(address) || uses.size >= maxUses) return;
    const url = keptAddress(address);
    uses.set(`${kind} ${url}`, { kind, url });
  };
  const addPicture = (kind: UseKind, text: string | null) => {
    if (text && pictureEnding.test(text.split(/[?#]/)[0]!)) add(kind, text);
  };
  const all = (selector: string) => document.querySelectorAll(selector);
  for (const link of all('a[href], area[href]')) addPicture('link', link.getAttribute('href'));
  for (const meta of all(
    'meta[property="og:image"], meta[property="og:image:url"], meta[property="og:image:secure_url"], meta[name="twitter:image"], meta[name="twitter:image:src"], meta[itemprop="image"], meta[name="msapplication-TileImage"]',
  ))
    add('metadata', meta.getAttribute('content'));
  for (const link of all('link[rel="image_src"][href]')) add('metadata', link.getAttribute('href'));
  for (const link of all('link[rel~="icon" i][href], link[rel*="touch-icon" i][href]'))
    add('icon', link.getAttribute('href'));
  for (const script of all('script[type="application/ld+json"]'))
    for (const [, text] of (script.textContent ?? '')
      .slice(0, maxData)
      .matchAll(/"((?:[^"\\]|\\.)*)"/g))
      addPicture('metadata', text!.replaceAll('\\/', '/'));
  for (const element of all('img, a, figure, [data-full-url], [data-large-file]'))
    for (const { name, value } of attributesOf(element))
      if (name.startsWith('data-') && !ofTheElement.test(name)) addPicture('script', value);
  return [...uses.values()];
}

const maxNamingFiles = 20;

/** The feeds and the manifest that the document points to. */
export function namingFilesOf(): NamingFile[] {
  const files: NamingFile[] = [];
  const add = (kind: NamingFile['kind'], selector: string) => {
    for (const link of document.querySelectorAll(selector)) {
      const url = resolveAddress(link.getAttribute('href')!);
      if (url && /^https?:/.test(url) && url.length <= maxLength && files.length < maxNamingFiles)
        files.push({ kind, url: url.replace(/#.*/, '') });
    }
  };
  add('manifest', 'link[rel~="manifest" i][href]');
  for (const type of ['application/rss+xml', 'application/atom+xml', 'application/feed+json'])
    add('feed', `link[rel~="alternate" i][type="${type}" i][href]`);
  return files;
}
