import type { Header } from '../base/headers.js';

/** Content types that page weight is split into. */
export const requestTypes = ['html', 'style', 'script', 'image', 'font', 'other'] as const;
export type RequestType = (typeof requestTypes)[number];
export type BytesByType = Readonly<Record<RequestType, number>>;

/** The phases of a request in the order in which they pass. */
export const phaseNames = ['blocked', 'dns', 'connect', 'tls', 'send', 'wait', 'receive'] as const;
export type PhaseName = (typeof phaseNames)[number];
/**
 * Milliseconds spent in each phase. They add up to the request's duration; a phase that did not
 * take place (a connection used again needs no connect) is 0.
 */
export type Phases = Readonly<Record<PhaseName, number>>;

/** A line of a document, a style sheet or a script. */
export interface SourceLine {
  readonly url: string;
  /** From 1; `null` where only the file is known. */
  readonly line: number | null;
}

/** One request of a page, as the browser's network reported it. */
export interface PageRequest {
  readonly url: string;
  readonly method: string;
  readonly type: RequestType;
  /** HTTP status; 0 without a response. */
  readonly status: number;
  readonly statusText: string;
  readonly mediaType: string;
  readonly protocol: string;
  /** Milliseconds since the navigation began. */
  readonly start: number;
  /** Milliseconds since the navigation began; `null` when it had not ended. */
  readonly end: number | null;
  readonly phases: Phases;
  /** Bytes on the wire, headers included. */
  readonly transferBytes: number;
  /** Bytes of the body, content encoding undone. */
  readonly bodyBytes: number;
  readonly fromCache: boolean;
  readonly priority: string;
  /** Its priority when it was requested; equal to the final one if it was not changed. */
  readonly firstPriority: string;
  /** Its initiator: parser, style, script, preload, redirect or other. */
  readonly initiator: string;
  /** Where it was requested; `null` if unknown. */
  readonly initiatedBy: SourceLine | null;
  /**
   * Whether anything came of it: a picture that an element shows, a style sheet with a rule that matches, a font that
   * is drawn with, a script that was run. `null` where that is not known.
   */
  readonly used: boolean | null;
  readonly thirdParty: boolean;
  readonly renderBlocking: boolean;
  readonly requestHeaders: readonly Header[];
  readonly responseHeaders: readonly Header[];
  readonly serverAddress: string;
  readonly redirectsTo: string;
  /** Why it failed, when it did. */
  readonly failure: string | null;
}

export const noPhases: Phases = {
  blocked: 0,
  dns: 0,
  connect: 0,
  tls: 0,
  send: 0,
  wait: 0,
  receive: 0,
};

/** All types at nothing. */
export function noBytes(): Record<RequestType, number> {
  return { html: 0, style: 0, script: 0, image: 0, font: 0, other: 0 };
}

/** Bytes on the wire by content type. */
export function bytesByType(requests: readonly PageRequest[]): BytesByType {
  const bytes = noBytes();
  for (const request of requests) bytes[request.type] += request.transferBytes;
  return bytes;
}

/** All types together. */
export function totalBytes(bytes: BytesByType): number {
  return requestTypes.reduce((sum, type) => sum + bytes[type], 0);
}
