import type { RequestType } from '../load/request.js';
import type { ToldHeader } from './image-file.js';
import type { LoadFacts } from './load-facts.js';

/** A file that a page was sent and that is no image: its document, style sheets, scripts, fonts, data. */
export interface Resource {
  readonly url: string;
  readonly type: RequestType;
  /** HTTP status; 0 without a response. */
  readonly status: number;
  readonly mediaType: string;
  readonly protocol: string;
  readonly headers: Readonly<Partial<Record<ToldHeader, string>>>;
  /** Bytes on the wire on a first visit, headers included. */
  readonly transferBytes: number;
  /** Those of them that are the body, as it was encoded. */
  readonly wireBytes: number;
  /** Bytes of the body, content encoding undone. */
  readonly bodyBytes: number;
  /** Of a text whose body was read; `null` of anything else. */
  readonly contentHash: string | null;
  readonly renderBlocking: boolean;
  readonly thirdParty: boolean;
  /** Its initiator: `parser`, `style`, `script`, `preload` or `other`. */
  readonly initiator: string;
  /** The file that asked for it; `null` where that is the document, or is not known. */
  readonly initiatedBy: string | null;
  /** The addresses that led to it. */
  readonly redirects: readonly string[];
  /** Bytes of the cookies that were sent with the request. */
  readonly cookieBytes: number;
  /** How often the visit asked for it. */
  readonly times: number;
}

/** What can be said of a text from its body alone. */
export interface TextFacts {
  /** SHA-256 of the body, 64 hexadecimal digits. */
  readonly contentHash: string;
  readonly bytes: number;
  /** Compressed by gzip (RFC 1952, level 9) and Brotli (RFC 7932, quality 5, which servers manage as they go). */
  readonly gzip: number;
  readonly brotli: number;
  /** What a minifier makes of it, and what gzip makes of that; `null` where none was tried, or it could not be read. */
  readonly minified: { readonly bytes: number; readonly gzip: number } | null;
  /** Of a style sheet: its rules with a selector, as `TextUse` has its ranges. */
  readonly rules?: readonly number[];
  /** Of a script: whether it calls `document.write`, as offsets in UTF-16 units. */
  readonly writes?: readonly number[];
  /** Length in UTF-16 units, which coverage counts in. */
  readonly units?: number;
  readonly font?: FontFacts;
  /** The bodies in it as `data:` addresses, of a kilobyte and more: how many, and their bytes there. */
  readonly embedded: { readonly count: number; readonly bytes: number };
}

/** What can be said of a font from its file. */
export interface FontFacts {
  /** Found by looking at its bytes; `null` for what is no font that browsers read. */
  readonly format: 'WOFF2' | 'WOFF' | 'TrueType' | 'OpenType' | null;
  /** Bytes as WOFF2; `null` where it could not be made. */
  readonly woff2: number | null;
  /** What it weighs as WOFF2 with only some characters, by these characters; found out at the end of a survey. */
  readonly subsets: Readonly<Record<string, number>>;
}

/** The resources of a survey: each different one once, and those of each visit by their places among them. */
export interface Resources {
  readonly list: readonly Resource[];
  /** In the order of the visits of the survey. */
  readonly ofVisit: readonly (readonly number[])[];
  /** By content hash. */
  readonly texts: ReadonlyMap<string, TextFacts>;
  /** How each visit loaded; `null` for visits of older versions. */
  readonly loads: readonly (LoadFacts | null)[];
}

/** A survey that kept none: one of an older version. */
export const noResources: Resources = { list: [], ofVisit: [], texts: new Map(), loads: [] };
