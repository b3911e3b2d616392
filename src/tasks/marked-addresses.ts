import { load } from 'cheerio';
import { parseSrcset } from '../core/slots/srcset.js';

const mark = 'zealous-lynx-proof';
const pattern = new RegExp(`[?&]${mark}=\\d+`, 'g');
let marks = 0;

/**
 * Markup whose addresses of images are marked, every time in another way: the site may have other files under the same names,
 * and a browser that holds a larger candidate already chooses that.
 */
export function markAddresses(markup: string): string {
  const number = ++marks;
  const $ = load(markup, null, false);
  for (const element of $('img, source').toArray()) {
    const { src, srcset } = $(element).attr() ?? {};
    if (src) $(element).attr('src', marked(src, number));
    if (!srcset) continue;
    const candidates = parseSrcset(srcset).map(({ url, width, density }) => {
      const descriptor = width === null ? `${density}x` : `${width}w`;
      return `${marked(url, number)} ${descriptor}`;
    });
    $(element).attr('srcset', candidates.join(', '));
  }
  return $.html();
}

function marked(url: string, number: number): string {
  if (/^(?:data|blob):/i.test(url)) return url;
  const [address = '', fragment] = url.split('#', 2);
  const joint = address.includes('?') ? '&' : '?';
  return `${address}${joint}${mark}=${number}${fragment === undefined ? '' : `#${fragment}`}`;
}

export function isMarked(url: string): boolean {
  return url.includes(`${mark}=`);
}

/** A text whose addresses are those of the site again. */
export function unmarked(text: string): string {
  return text.replace(pattern, '');
}
