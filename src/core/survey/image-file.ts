import type { Size } from '../base/size.js';

/** The bytes behind one or more addresses, known by their content hash. */
export interface ImageFile {
  /** SHA-256 of the body, 64 hexadecimal digits. */
  readonly contentHash: string;
  /** Media type found by looking at the bytes, not the one the server names. */
  readonly mediaType: string;
  /** Pixels in the file after its orientation is applied; `null` for vectors and unreadable files. */
  readonly intrinsic: Size | null;
  /** Size of the body in bytes, any content encoding undone. */
  readonly bytes: number;
  /** Frames of an animation; 1 for a still picture. */
  readonly frames: number;
  /** Why the file cannot be judged, when it cannot. */
  readonly problem: string | null;
}

/** A picture made of shapes, without pixels. */
export function isVector(file: ImageFile): boolean {
  return file.mediaType === 'image/svg+xml';
}

/** Headers of a response about how it was sent and how long it may be cached. */
export const toldHeaders = [
  'content-encoding',
  'vary',
  'cache-control',
  'expires',
  'age',
  'etag',
  'last-modified',
  'connection',
] as const;
export type ToldHeader = (typeof toldHeaders)[number];

/** One response of the network that carried an image file to a page, or should have. */
export interface ImageResponse {
  readonly page: string;
  readonly view: string;
  /** The address that answered. */
  readonly url: string;
  /** The image file that came; `null` when none did. */
  readonly contentHash: string | null;
  /** Why no file came, or not all of it. */
  readonly problem: string | null;
  /** HTTP status; 0 without a response, and for bytes that are in the document. */
  readonly status: number;
  /** The addresses that led there, in order. */
  readonly redirects: readonly string[];
  /** Media type as the server named it. */
  readonly declaredType: string;
  readonly protocol: string;
  readonly headers: Readonly<Partial<Record<ToldHeader, string>>>;
  /** How often it came over the network to this page, where that was more than once. */
  readonly sent?: number;
  /** Bytes on the wire, headers included; of the first fetch where the browser's cache answered. */
  readonly transferBytes: number;
  readonly thirdParty: boolean;
  /** Bytes of the cookies that went with the request, where any did. */
  readonly cookieBytes?: number;
  /** The initiator of the request, in the words of the DevTools protocol: `parser`, `script`, `preload`, `other` … */
  readonly initiator: string;
}
