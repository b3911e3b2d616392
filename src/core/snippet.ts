import { fixOf } from './fix.js';
import type { EncodedFormat } from './policy.js';
import type { MadeVariant, RefitOrder } from './refit-plan.js';

/** A file that markup offers. */
interface Offer {
  readonly path: string;
  readonly width: number;
  readonly format: EncodedFormat;
}

/** What is to be written in place of what stands there. */
export interface Snippet {
  /** Address of the original. */
  readonly url: string;
  readonly pages: readonly string[];
  readonly selectors: readonly string[];
  readonly language: 'html' | 'css';
  readonly text: string;
}

/**
 * The markup and style that show a refitted image as it should be: every width in the best format, the same in one
 * that every browser reads, `sizes` from the slot curve, its box, and how it is loaded.
 *
 * @param made the variants that there are
 */
export function snippetsOf(order: RefitOrder, made: readonly MadeVariant[]): Snippet[] {
  const { image, file, folder, root } = order;
  const shown = image.placed.filter((placement) => placement.shown);
  const about = (kinds: (kind: string) => boolean) => {
    const some = shown.filter(({ kind }) => kinds(kind));
    return {
      url: image.url,
      pages: [...new Set(some.map(({ page }) => page))],
      selectors: [...new Set(some.map(({ selector }) => selector))],
    };
  };
  const offers: Offer[] = [
    { path: file.path, width: file.to.width, format: file.to.format },
    ...made
      .filter(({ contentHash }) => contentHash === file.contentHash)
      .map(({ path, size, format }) => ({ path, width: size.width, format })),
  ].sort((a, b) => a.width - b.width);
  const addressOf = ({ path }: Offer) =>
    root + path.slice(folder.length).split('/').map(encodeURIComponent).join('/');
  const best = offers.filter(({ format }) => format === file.to.format);
  const plain = offers.filter(({ format }) => format !== file.to.format);
  const snippets: Snippet[] = [];
  const inMarkup = about((kind) => kind === 'img');
  if (inMarkup.selectors.length > 0)
    snippets.push({
      ...inMarkup,
      language: 'html',
      text: pictureText(order, best, plain, addressOf),
    });
  const inStyle = about((kind) => kind === 'background');
  if (inStyle.selectors.length > 0)
    snippets.push({
      ...inStyle,
      language: 'css',
      text: styleText(image.url, best, plain, addressOf),
    });
  return snippets;
}

function pictureText(
  { image, file }: RefitOrder,
  best: readonly Offer[],
  plain: readonly Offer[],
  addressOf: (offer: Offer) => string,
): string {
  const shown = image.placed.filter(({ kind, shown: seen }) => kind === 'img' && seen);
  const { sizes } = fixOf(image, Infinity);
  const set = (offers: readonly Offer[]) => {
    const list = offers.map((offer) => `${addressOf(offer)} ${offer.width}w`).join(', ');
    return offers.length > 1 ? ` srcset="${list}" sizes="${attribute(sizes ?? '100vw')}"` : '';
  };
  const base = plain.length > 0 ? plain : best;
  const source = plain.at(-1);
  const alt = shown.find(({ markup }) => markup?.alt != null)?.markup?.alt;
  const first = shown.some(({ aboveFold }) => aboveFold);
  const load = first
    ? shown.some(({ largest }) => largest)
      ? ' fetchpriority="high"'
      : ''
    : ' loading="lazy"';
  const own = source ? addressOf(source) : plain === base ? image.url : addressOf(best.at(-1)!);
  const box = ` width="${file.to.width}" height="${file.to.height}"`;
  const img = `<img src="${attribute(own)}"${set(base)}${box} alt="${attribute(alt ?? '')}"${load} decoding="async">`;
  if (plain.length === 0) return img;
  const list = best.map((offer) => `${addressOf(offer)} ${offer.width}w`).join(', ');
  const sized = best.length > 1 ? ` sizes="${attribute(sizes ?? '100vw')}"` : '';
  const offered = best.length > 1 ? list : addressOf(best[0]!);
  return [
    '<picture>',
    `  <source type="image/${file.to.format}" srcset="${offered}"${sized}>`,
    `  ${img}`,
    '</picture>',
  ].join('\n');
}

function styleText(
  url: string,
  best: readonly Offer[],
  plain: readonly Offer[],
  addressOf: (offer: Offer) => string,
): string {
  const [modern, common] = [best.at(-1)!, plain.at(-1)];
  const fallback = common ? addressOf(common) : url;
  const image = (address: string, format: string) =>
    `url("${address.replace(/["\\\n]/g, encodeURIComponent)}") type("image/${format}")`;
  if (!common) return `background-image: url("${addressOf(modern)}");`;
  return [
    `background-image: url("${fallback}");`,
    `background-image: image-set(${image(addressOf(modern), modern.format)}, ${image(fallback, common.format)});`,
  ].join('\n');
}

const entities: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
};

/** Text of foreign origin as it may stand in an attribute, in one line. */
function attribute(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/[&<>"]/g, (sign) => entities[sign]!);
}
