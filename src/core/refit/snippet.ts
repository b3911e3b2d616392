import { elementKey } from './element-images.js';
import type { ElementImages } from './element-images.js';
import { slotOf } from '../slots/family-key.js';
import type { PlacedImage } from '../findings/image/image-case.js';
import { widestCurve } from './fix.js';
import { groupBy } from '../base/group-by.js';
import type { EncodedFormat } from '../policy/policy.js';
import { asMarkup } from '../base/markup-text.js';
import type { RankedImage } from '../rank/ranked-image.js';
import { isReadEverywhere } from './refit-job.js';
import type { MadeJob } from './refit-job.js';
import type { Size } from '../base/size.js';
import { sizesText } from '../slots/sizes-text.js';
import { parseSizes, wholeViewport } from '../slots/source-sizes.js';

/** A file that markup offers. */
interface Offer {
  readonly path: string;
  readonly width: number;
  readonly format: EncodedFormat;
}

/** An element that a snippet is for. */
export interface SnippetPlace {
  readonly page: string;
  readonly selector: string;
}

/** The markup to write in place of the present one. */
export interface Snippet {
  /** Address of the original. */
  readonly url: string;
  readonly places: readonly SnippetPlace[];
  readonly language: 'html' | 'css';
  /** What it replaces: a whole element, or the addresses of the picture in a style. */
  readonly replaces: 'element' | 'url';
  readonly text: string;
}

/** Rules that let snippets fit any layout: the site's own style sheets take precedence. */
export const snippetRules = [
  ':where(picture) { display: contents; }',
  ':where(picture > source) { display: none; }',
  ":where(picture > img[style*='--ratio']) { height: auto; aspect-ratio: var(--ratio); }",
].join('\n');

/** The inputs of snippets besides the files made. */
export interface SnippetContext {
  /** The page group of each page. */
  readonly groups: ReadonlyMap<string, string | null>;
  readonly elements: ElementImages;
}

/**
 * The markup and styles that show a refitted image as it should be: every width in the best format, the same in one
 * that every browser reads, `sizes` from the slot curve, its box, and how it is loaded. One snippet for each slot family
 * that the image is in.
 */
export function snippetsOf(
  image: RankedImage,
  job: MadeJob,
  { groups, elements }: SnippetContext,
): Snippet[] {
  if (job.file.to.format === 'svg') return [];
  const shown = image.placed.filter(
    (placed) => placed.shown && !elements.isSuperseded(image, placed),
  );
  const families = groupBy(
    shown.filter(({ kind }) => kind === 'img'),
    ({ page, selector }) => `${groups.get(page) ?? page}\n${slotOf(selector)}`,
  );
  const inMarkup = [...families.values()].map((placed): Snippet => {
    const curve = widestCurve(placed);
    return {
      ...{ url: image.url, places: placesOf(placed), language: 'html', replaces: 'element' },
      text: pictureText(job, {
        original: image.url,
        sizes: curve && sizesText(curve),
        box: boxOf(image, placed),
        alt: placed.find(({ markup }) => markup?.alt != null)?.markup?.alt ?? null,
        load: loadOf(placed),
      }),
    };
  });
  const styled = shown.filter(({ kind }) => kind === 'background');
  const [common, modern] = [false, true].map((best) =>
    offersOf(job).findLast(({ format }) => (format === job.file.to.format) === best),
  );
  if (styled.length === 0 || !common || !modern) return inMarkup;
  const inStyle: Snippet = {
    ...{ url: image.url, places: placesOf(styled), language: 'css', replaces: 'url' },
    text: styleText(job, modern, common),
  };
  return [...inMarkup, inStyle];
}

function placesOf(placed: readonly PlacedImage[]): SnippetPlace[] {
  const places = placed.map(({ page, selector }) => ({ page, selector }));
  return [...new Map(places.map((place) => [elementKey(place), place])).values()];
}

/** The attributes of a picture's markup besides its files. */
export interface PictureText {
  /** Address of the original. */
  readonly original: string;
  /** `null` if the width of the slot is unknown. */
  readonly sizes: string | null;
  /** Attributes that say its box or its ratio, as `boxText` has them. */
  readonly box: string;
  /** `null` if unknown. */
  readonly alt: string | null;
  readonly load: 'first' | 'at once' | 'when near';
}

const loadAttributes: Readonly<Record<PictureText['load'], string>> = {
  first: ' fetchpriority="high"',
  'at once': '',
  'when near': ' loading="lazy" decoding="async"',
};

/** The element that shows a refitted picture. */
export function pictureText(
  job: MadeJob,
  { original, sizes, box, alt, load }: PictureText,
): string {
  const offers = offersOf(job);
  const best = offers.filter(({ format }) => format === job.file.to.format);
  const isModern = !isReadEverywhere(best[0]!.format);
  const inImg = isModern ? offers.filter((offer) => !best.includes(offer)) : best;
  const among = ` sizes="${attribute(sizes ?? '100vw')}"`;
  const candidates = (some: readonly Offer[]) =>
    some.length > 1
      ? ` srcset="${some.map((one) => `${addressOf(job, one)} ${one.width}w`).join(', ')}"${among}`
      : '';
  // Where nothing smaller could be made for old browsers, they go on with the original.
  const address = inImg.length > 0 ? addressOf(job, inImg.at(-1)!) : original;
  const source = candidates(best) || ` srcset="${addressOf(job, best[0]!)}"`;
  const asks = [
    ...(alt === null ? ['describe the picture'] : []),
    ...(sizes === null && offers.length > 1 ? ['width of its slot'] : []),
  ];
  return [
    ...asks.map((words) => `<!-- ${words} -->`),
    '<picture>',
    ...(isModern ? [`  <source type="${job.file.mediaType}"${source}>`] : []),
    `  <img src="${attribute(address)}"${candidates(inImg)}${box} alt="${attribute(alt ?? '')}"${loadAttributes[load]}>`,
    '</picture>',
  ].join('\n');
}

/** Its files, the narrowest first. */
function offersOf({ file, variants }: MadeJob): Offer[] {
  const { width, format } = file.to;
  const main = width === null || format === 'svg' ? [] : [{ path: file.path, width, format }];
  return [
    ...main,
    ...variants.map(({ path, size, format: one }) => ({ path, width: size.width, format: one })),
  ].sort((a, b) => a.width - b.width);
}

/**
 * Attributes that keep the picture laid out as it was, however many pixels the new files have. The box of the markup
 * stays, where it has one. Else it is that of the original, with its ratio, which whole pixels can only come near. An
 * element that chooses by width is as wide as its `sizes` say: it has the ratio alone.
 */
function boxOf({ file }: RankedImage, placed: readonly PlacedImage[]): string {
  const { markup, naturalDensity } = placed[0]!;
  const natural = file.intrinsic ?? { width: 1, height: 1 };
  const { width, height } = markup?.declared ?? { width: null, height: null };
  const ratio = natural.width / natural.height;
  if (width !== null && height !== null) return boxText({ width, height });
  // Beside a border a ratio would be that of the border's box, which is another one.
  const free = markup?.framed ? freeText : ratioText(natural);
  if (width !== null || height !== null)
    return boxText({ width: width ?? height! * ratio, height: height ?? width! / ratio }) + free;
  if (goesBySizes(placed[0]!)) return free;
  const box = { width: natural.width / naturalDensity, height: natural.height / naturalDensity };
  return boxText(box) + free;
}

/** Whether an element chooses by width, and its slot may be as wide as its `sizes` say because they say so. */
function goesBySizes({ markup, curve }: PlacedImage): boolean {
  if (!/\s\d+w\s*(?:,|$)/.test(markup?.srcset ?? '')) return false;
  const said = markup?.sizes ? parseSizes(markup.sizes) : wholeViewport;
  const pieces = curve() ?? [];
  return pieces.every(({ from, a, b }) => Math.abs(a * from + b - (said?.(from) ?? 0)) <= 1);
}

/** A box as attributes. */
export function boxText({ width, height }: Size): string {
  return ` width="${Math.round(width)}" height="${Math.round(height)}"`;
}

/** Its height follows from its width, by the ratio that the file has. */
const freeText = ' style="--ratio: auto"';

/** Sets the ratio for the rules above; a rule of the style sheet with another ratio takes precedence. */
export function ratioText({ width, height }: Size): string {
  return ` style="--ratio: ${width} / ${height}"`;
}

function loadOf(placed: readonly PlacedImage[]): PictureText['load'] {
  if (placed.some(({ largest }) => largest)) return 'first';
  return placed.some(({ aboveFold }) => aboveFold) ? 'at once' : 'when near';
}

function styleText(job: MadeJob, modern: Offer, common: Offer): string {
  const image = (offer: Offer) => `url("${addressOf(job, offer)}") type("image/${offer.format}")`;
  return `image-set(${image(modern)}, ${image(common)})`;
}

/** A path of the refit as an address on the site. */
export function addressOf(
  { root, folder }: Pick<MadeJob, 'root' | 'folder'>,
  { path }: Pick<Offer, 'path'>,
): string {
  return root + path.slice(folder.length).split('/').map(encodeURIComponent).join('/');
}

/** Foreign text made safe for an attribute, in one line. */
function attribute(text: string): string {
  return asMarkup(text.replace(/\s+/g, ' '));
}
