/** Rules of thumb for the bytes and sides of images; crossing one is a finding, whatever the need says. */
export interface Ceilings {
  /** Bytes of an image that covers the whole viewport; one that covers a part may have that part of them. */
  readonly area: number;
  /** Bytes that most content images stay under. */
  readonly content: number;
  /** Bytes over which a content image is an alarm. */
  readonly alarm: number;
  /** Bytes that no content image may have. */
  readonly never: number;
  /** Bytes of a small picture, no wider than `smallWidth`. */
  readonly small: number;
  /** CSS pixels up to which a picture is small. */
  readonly smallWidth: number;
  /** Bytes of a picture as wide as the viewport. */
  readonly hero: number;
  /** Longest side in pixels of a content image, and of one as wide as the viewport. */
  readonly side: number;
  readonly heroSide: number;
  /** Bytes of a page, all of it. */
  readonly page: number;
  /** Pictures in a slider. */
  readonly slides: number;
}

export const defaultCeilings: Ceilings = {
  area: 200_000,
  content: 100_000,
  alarm: 200_000,
  never: 500_000,
  small: 50_000,
  smallWidth: 200,
  hero: 1_000_000,
  side: 1_500,
  heroSide: 2_560,
  page: 500_000,
  slides: 5,
};

/** A picture this part of the viewport wide, or wider, is as wide as the viewport. */
export const heroShare = 0.9;
