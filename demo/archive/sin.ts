import { createHash } from 'node:crypto';

/** One response of the archive, of which its servers make the rest. */
export interface ArchiveAnswer {
  readonly status?: number;
  readonly type?: string;
  /** A file that takes a moment to make may still be under way. */
  readonly body?: string | Buffer | Promise<Buffer>;
  /** Sent beside, or in place of, what a sound answer has; an empty text takes a header away. */
  readonly headers?: Readonly<Record<string, string>>;
  /** Milliseconds that the server takes to answer. */
  readonly delay?: number;
  readonly location?: string;
  /** Whether a text is sent as it is, and not compressed. */
  readonly isPlain?: boolean;
}

/** Where a sin is committed: a page, and what its files may be called. */
export interface Place {
  /** Different for each page. */
  readonly id: string;
  /** The address of the page. */
  readonly page: string;
  /** The address of a file of the site, or of one of its other hosts. */
  file(name: string, subdomain?: string): string;
  /** The address of a file of a third party that only this page knows. */
  third(party: string, name: string): string;
}

/** What a page gets by a sin. */
export interface SinParts {
  readonly head?: string;
  readonly body?: string;
  /** By address. */
  readonly files?: Readonly<Record<string, ArchiveAnswer>>;
  /** What is special about the response to the page itself. */
  readonly answer?: Pick<ArchiveAnswer, 'headers' | 'delay'>;
  /** The address under which the page is found, where that is not its own. */
  readonly foundAt?: string;
}

/** Something wrong with how a page is put together or sent, with and without the fault. */
export interface Sin {
  /** The finding that tells of it. */
  readonly finding: string;
  /** Others that are true of it as well. */
  readonly also?: readonly string[];
  /** What is wrong, in words. */
  readonly fault: string;
  parts(place: Place, isMended: boolean): SinParts;
}

export const css = (body: string, more: Partial<ArchiveAnswer> = {}): ArchiveAnswer => ({
  type: 'text/css',
  body,
  ...more,
});

export const js = (body: string, more: Partial<ArchiveAnswer> = {}): ArchiveAnswer => ({
  type: 'text/javascript',
  body,
  ...more,
});

/** Hexadecimal digits that hardly compress, the same for the same words. */
export function digits(words: string): string {
  return createHash('sha256').update(words).digest('hex');
}

export const stylesheet = (url: string): string => `<link rel="stylesheet" href="${url}">`;

/** A small script that leaves a mark on the document, so that it is not the same as any other. */
export const mark = (place: Place, what: string): string =>
  `document.documentElement.dataset["${what}"]="${place.id}";`;

/** A small style sheet all of whose rules match. */
export const touch = (place: Place, what: string): string => `body{--${what}:"${place.id}"}`;
