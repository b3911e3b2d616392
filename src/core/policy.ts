/** A format that this tool can write. */
export type EncodedFormat = 'jpeg' | 'png' | 'webp' | 'avif' | 'gif';

/** What counts as enough: the rules of thumb that people disagree on, in one place. */
export interface Policy {
  /** Device pixels to a CSS pixel that are allowed for; denser screens are served this many. */
  readonly density: number;
  /** Formats that a picture may be changed into, besides the one it has. */
  readonly formats: readonly EncodedFormat[];
  /** Encoder quality, 1 to 100, by lossy format. */
  readonly quality: Readonly<Record<'jpeg' | 'webp' | 'avif', number>>;
}

export const defaultPolicy: Policy = {
  density: 2,
  formats: ['webp'],
  quality: { jpeg: 76, webp: 76, avif: 55 },
};
