import type { Resource, TextFacts } from '../../survey/resource.js';
import type { FindingData, FindingKind } from '../finding.js';

/** A file that pages of a survey are sent, and that is no image. */
export interface SentFile {
  /** As it was sent where it was the heaviest. */
  readonly resource: Resource;
  readonly text: TextFacts | undefined;
  /** The pages that are sent it. */
  readonly pages: readonly string[];
  /** How often an average visit is sent it, at most once. */
  readonly perVisit: number;
}

/** What a check of one file can use of the others. */
export interface SiteCase {
  /** The files that have one content, by its hash, the one that is sent most often first. */
  readonly sameContent: ReadonlyMap<string, readonly SentFile[]>;
  /** Hosts that the program itself serves from a folder. */
  readonly servedHere: ReadonlySet<string>;
}

/** The evidence of a finding on a file, and what it costs each time that the file is sent. */
export interface SiteEvidence<Data extends FindingData> {
  readonly data: Data;
  /** Bytes on the wire that would not be sent; `null` where the cost is none of bytes, or cannot be known. */
  readonly bytes: number | null;
}

/** A kind of finding about files that a site sends besides images. */
export interface SiteFindingKind<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  /** Looks at one file; answers with the evidence, or with nothing. */
  check(file: SentFile, site: SiteCase): SiteEvidence<Data> | undefined;
}

/** Declares a kind of finding about files that a site sends. */
export function siteFinding<const Id extends string, Data extends FindingData>(
  kind: SiteFindingKind<Id, Data>,
): SiteFindingKind<Id, Data> {
  return kind;
}

/** What is saved below this, in bytes, is not worth a row. */
export const leastSaved = 1_000;
