import type { EncodedFormat } from '../../policy/policy.js';
import { attributeOf, withAttributes } from '../../slots/element-markup.js';
import type { Attributes, ElementMarkup } from '../../slots/element-markup.js';
import { isReadEverywhere } from '../refit-job.js';
import type { MadeJob } from '../refit-job.js';

/** A file that markup offers. */
export interface Offer {
  readonly path: string;
  readonly width: number;
  readonly format: EncodedFormat;
}

/** How markup offers several formats: by a `<picture>`, or not at all. */
export type MarkupForm = 'img' | 'picture';

/** Changes of attributes by name; `null` removes one. */
export type AttributeValues = Readonly<Record<string, string | null>>;

/** What an element says besides its files. */
export interface ElementWishes {
  readonly form: MarkupForm;
  /** Formats are chosen by the server, by what the browser accepts. */
  readonly negotiated: boolean;
  /** `null` if the width of the slot is unknown. */
  readonly sizes: string | null;
  /** Attributes of its box and its loading. */
  readonly attributes: AttributeValues;
}

/**
 * An element that shows the refitted files: as it stands in the page, changed in its files and in what is wished for.
 *
 * @throws Error when its `<picture>` chooses by media: which file is for which crop only its author knows.
 */
export function refittedElement(
  element: ElementMarkup,
  job: MadeJob,
  { form, negotiated, sizes, attributes }: ElementWishes,
): ElementMarkup {
  if (element.picture?.sources.some((source) => attributeOf(source, 'media') !== null))
    throw new Error('its picture element chooses by media');
  const offers = offersOf(job);
  const best = offers.filter(({ format }) => format === job.file.to.format);
  const isModern = !isReadEverywhere(best[0]!.format);
  const common = isModern ? offers.filter((offer) => !best.includes(offer)) : best;
  const inImg = form === 'picture' || negotiated ? common : best;
  const img = {
    ...(inImg.length > 0 && { src: addressOf(job, inImg.at(-1)!) }),
    ...candidatesOf(job, inImg, sizes),
  };
  const changed = { ...attributes, ...img };
  const own = withAttributes(element.attributes, {
    ...changed,
    ...forScripts(element.attributes, changed),
  });
  const hasSource = form === 'picture' && isModern;
  if (!hasSource && !element.picture) return { attributes: own, picture: null };
  const source = Object.entries({
    type: job.file.mediaType,
    ...(best.length > 1
      ? candidatesOf(job, best, sizes)
      : { srcset: addressOf(job, best[0]!), sizes: null }),
  }).filter((entry): entry is [string, string] => entry[1] !== null);
  return {
    attributes: own,
    picture: {
      attributes: element.picture?.attributes ?? [],
      sources: hasSource ? [source] : [],
    },
  };
}

/** The attributes that offer some files; without a choice there are none. */
function candidatesOf(
  job: MadeJob,
  offers: readonly Offer[],
  sizes: string | null,
): { srcset: string | null; sizes: string | null } {
  if (offers.length < 2) return { srcset: null, sizes: null };
  return {
    srcset: offers.map((one) => `${addressOf(job, one)} ${one.width}w`).join(', '),
    sizes: sizes ?? '100vw',
  };
}

/** Attributes from which scripts that load images late take what they write into `src`, `srcset` and `sizes`. */
const forLateScripts = /^data-(?:lazy-?)?(src|srcset|sizes|original)$/;

/** The same changes where a script would write the old values back. */
function forScripts(before: Attributes, changed: AttributeValues): Record<string, string | null> {
  return Object.fromEntries(
    before.flatMap(([name]): [string, string | null][] => {
      const target = forLateScripts.exec(name)?.[1];
      const value = changed[target === 'original' ? 'src' : (target ?? '')];
      return value === undefined ? [] : [[name, value]];
    }),
  );
}

/**
 * An element whose site offers its widths already, with `sizes` that say its slot.
 *
 * @param sizes `null` leaves them as they are
 */
export function withSizes(
  element: ElementMarkup,
  sizes: string | null,
  attributes: AttributeValues,
): ElementMarkup {
  const sized = (one: Attributes): AttributeValues =>
    sizes !== null && hasWidths(attributeOf(one, 'srcset')) ? { sizes } : {};
  const changed = { ...attributes, ...sized(element.attributes) };
  return {
    attributes: withAttributes(element.attributes, {
      ...changed,
      ...forScripts(element.attributes, changed),
    }),
    picture: element.picture && {
      ...element.picture,
      sources: element.picture.sources.map((one) => withAttributes(one, sized(one))),
    },
  };
}

/** Whether a `srcset` names widths. */
export function hasWidths(srcset: string | null): boolean {
  return /\s\d+w\s*(?:,|$)/.test(srcset ?? '');
}

/**
 * The files of a job that markup is to offer, the narrowest first. Of one that keeps a width beyond the need, the
 * whole is not among them: dense screens would choose it.
 */
export function offersOf(job: MadeJob): Offer[] {
  const all = filesOfJob(job);
  const most = Math.max(0, ...job.variants.filter(({ use }) => use === 'width').map(widthOf));
  return job.isBeyondNeed && most > 0 ? all.filter(({ width }) => width <= most) : all;
}

/** All files of a job with pixels, the narrowest first. */
export function filesOfJob({ file, variants }: MadeJob): Offer[] {
  const { width, format } = file.to;
  const main = width === null || format === 'svg' ? [] : [{ path: file.path, width, format }];
  return [
    ...main,
    ...variants.map(({ path, size, format: one }) => ({ path, width: size.width, format: one })),
  ].sort((a, b) => a.width - b.width);
}

function widthOf({ size }: MadeJob['variants'][number]): number {
  return size.width;
}

/** A path of the refit as an address on the site. */
export function addressOf(
  { root, folder }: Pick<MadeJob, 'root' | 'folder'>,
  { path }: Pick<Offer, 'path'>,
): string {
  return root + path.slice(folder.length).split('/').map(encodeURIComponent).join('/');
}
