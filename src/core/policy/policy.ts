import type { Ceilings } from './ceilings.js';
import type { QualityRange } from '../pixels/quality-search.js';
import { defaultCeilings } from './ceilings.js';
import type { PolicyRule } from './allowance.js';
import type { MuteRule } from './mutes.js';

/** A format that this tool can write. */
export type EncodedFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'gif';

/** The properties of a picture that the choice of its format depends on. */
export type Nature = 'photograph' | 'transparent' | 'drawing' | 'animation';

/** The metadata that stays in a file: none, what it shows and whose it is, or everything. */
export const metadataPolicies = ['drop', 'credit', 'keep'] as const;
export type MetadataPolicy = (typeof metadataPolicies)[number];

/**
 * How markup offers a modern format: by a `<picture>` with a fallback, by an `<img>` in that format alone, or as suits the
 * site (`auto`): an `<img>` where the server chooses the format, else a `<picture>`.
 */
export const markupPolicies = ['auto', 'img', 'picture'] as const;
export type MarkupPolicy = (typeof markupPolicies)[number];

/**
 * Whether the pixels of a refitted file may come from a larger file of the same picture: from what the survey knows, and by
 * asking the site where names point to one.
 */
export const largerFilesPolicies = ['ask', 'known', 'never'] as const;
export type LargerFilesPolicy = (typeof largerFilesPolicies)[number];

/** What counts as enough: the rules of thumb that people disagree on, in one place. */
export interface Policy {
  /** Device pixels to a CSS pixel that are allowed for; denser screens are served this many. */
  readonly density: number;
  /** Formats that a picture may be converted to, besides its own. */
  readonly formats: readonly EncodedFormat[];
  /** The least similarity of a lossy file to the ideal reduction, 0 to 1. */
  readonly similarity: number;
  /** The range of qualities to search. */
  readonly quality: QualityRange;
  /** The most widths that a picture is offered in. */
  readonly widths: number;
  readonly metadata: MetadataPolicy;
  readonly markup: MarkupPolicy;
  readonly largerFiles: LargerFilesPolicy;
  /** Hosts other than the pages' own whose images the site's owner can change. */
  readonly ownHosts: readonly string[];
  readonly ceilings: Ceilings;
  /** The least that a new file must save of an old one, in bytes and as a share of it, to be worth the work. */
  readonly worthwhile: { readonly bytes: number; readonly share: number };
  /** What is allowed for chosen pictures beyond the need. */
  readonly rules: readonly PolicyRule[];
  /** Findings that are none for this site. */
  readonly mute: readonly MuteRule[];
}

export const defaultPolicy: Policy = {
  density: 2,
  formats: ['avif', 'webp'],
  similarity: 0.991,
  quality: { least: 45, most: 95 },
  widths: 5,
  metadata: 'drop',
  markup: 'auto',
  largerFiles: 'ask',
  ownHosts: [],
  ceilings: defaultCeilings,
  worthwhile: { bytes: 1_000, share: 0.01 },
  rules: [],
  mute: [],
};

/** The formats that can carry a picture of each nature without harm. AVIF without loss is larger than WebP, and slow. */
const fitting: Readonly<Record<Nature, readonly EncodedFormat[]>> = {
  photograph: ['jpeg', 'webp', 'avif', 'png'],
  transparent: ['webp', 'avif', 'png'],
  drawing: ['webp', 'png'],
  animation: ['webp', 'gif'],
};

/**
 * The formats that are tried for a picture: those that the policy allows for its nature; its own where there is no
 * other.
 */
export function formatsFor(
  nature: Nature,
  own: EncodedFormat,
  { formats }: Pick<Policy, 'formats'>,
): readonly EncodedFormat[] {
  const allowed = fitting[nature].filter((format) => formats.includes(format));
  return allowed.length > 0 ? allowed : [own];
}
