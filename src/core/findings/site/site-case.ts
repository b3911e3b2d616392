import type { ImageFile } from '../../survey/image-file.js';
import type { LoadFacts } from '../../survey/load-facts.js';
import type { Resource, TextFacts } from '../../survey/resource.js';
import type { Network } from '../../visitors/network.js';
import type { FindingData, FindingKind } from '../finding.js';
import type { TextUsage } from './text-usage.js';

/** A file that pages of a survey are sent. */
export interface SentFile {
  /** As it was sent where it was the heaviest. */
  readonly resource: Resource;
  readonly text: TextFacts | undefined;
  /** What is known of it as an image; absent of anything else. */
  readonly image?: ImageFile | undefined;
  /** The pages that are sent it. */
  readonly pages: readonly string[];
  /** The visits that are sent it, by their places in the survey. */
  readonly visits: readonly number[];
  /** How often an average visit is sent it, at most once. */
  readonly perVisit: number;
}

/** A page of a survey with all its visits. */
export interface SitePage {
  readonly url: string;
  readonly group: string | null;
  /** Its share of all visits. */
  readonly perVisit: number;
  /** How it loaded in each view; none where that was not kept. */
  readonly loads: readonly LoadFacts[];
  /** What it is sent, its document and images too, in the order in which it asks for them. */
  readonly files: readonly SentFile[];
}

/** All that comes from one registrable domain. */
export interface SiteService {
  readonly domain: string;
  readonly thirdParty: boolean;
  readonly files: readonly SentFile[];
  /** The pages that are sent any of it. */
  readonly pages: readonly string[];
}

/** What a check of one file, page or service can use of the rest. */
export interface SiteCase {
  readonly files: readonly SentFile[];
  readonly pages: readonly SitePage[];
  /** The files that have one content, by its hash, the one that is sent most often first. */
  readonly sameContent: ReadonlyMap<string, readonly SentFile[]>;
  /** Hosts that the program itself serves from a folder. */
  readonly servedHere: ReadonlySet<string>;
  /** What the pages use of a style sheet or a script; `undefined` where that is not known. */
  readonly usageOf: (file: SentFile) => TextUsage | undefined;
  /** How the visits of a file loaded. */
  readonly loadsOf: (file: SentFile) => readonly LoadFacts[];
  /** The characters that the pages of the whole survey draw with a font. */
  readonly charactersOf: (contentHash: string) => string;
  /** The label of an earlier survey that had the same content at the address; `null` where none is known. */
  readonly sameIn: (resource: Resource) => string | null;
  /** The line that round trips are counted on. */
  readonly network: Network;
  readonly partyOf: (url: string) => string;
}

/** The evidence of a finding, and what it costs each time. */
export interface SiteEvidence<Data extends FindingData> {
  readonly data: Data;
  /** Bytes on the wire that would not be sent; `null` where the cost is none of bytes, or cannot be known. */
  readonly bytes: number | null;
  /** Milliseconds that a visit would be spared; `null` or absent where the cost is none of time, or cannot be known. */
  readonly time?: number | null;
  /** The pages concerned, where that is not all that have to do with the file or service. */
  readonly pages?: readonly string[];
  /** Evidence of one kind with the same words here is one finding. */
  readonly together?: string;
}

/** A kind of finding about a file. */
export interface FileFindingKind<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  /** Looks at one file; answers with the evidence, or with nothing. */
  checkFile(file: SentFile, site: SiteCase): SiteEvidence<Data> | undefined;
}

/** A kind of finding about how a page is put together and loads. */
export interface PageFindingKind<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  checkPage(page: SitePage, site: SiteCase): readonly SiteEvidence<Data>[];
}

/** A kind of finding about all that comes from one domain. */
export interface ServiceFindingKind<
  Id extends string,
  Data extends FindingData,
> extends FindingKind<Id, Data> {
  checkService(service: SiteService, site: SiteCase): SiteEvidence<Data> | undefined;
}

export type SiteFindingKind<Id extends string, Data extends FindingData> =
  FileFindingKind<Id, Data> | PageFindingKind<Id, Data> | ServiceFindingKind<Id, Data>;

/** Declares a kind of finding about files. */
export function fileFinding<const Id extends string, Data extends FindingData>(
  kind: FileFindingKind<Id, Data>,
): FileFindingKind<Id, Data> {
  return kind;
}

/** Declares a kind of finding about pages. */
export function pageFinding<const Id extends string, Data extends FindingData>(
  kind: PageFindingKind<Id, Data>,
): PageFindingKind<Id, Data> {
  return kind;
}

/** Declares a kind of finding about services. */
export function serviceFinding<const Id extends string, Data extends FindingData>(
  kind: ServiceFindingKind<Id, Data>,
): ServiceFindingKind<Id, Data> {
  return kind;
}

/** What is saved below this, in bytes, is not worth a row. */
export const leastSaved = 1_000;

/** What is saved below this, in milliseconds, nobody feels. */
export const leastFelt = 50;

/** Whether a file is one that hardly ever changes under its address. */
export function isStatic({ type }: Resource): boolean {
  return type === 'style' || type === 'script' || type === 'font' || type === 'image';
}

/** Whether it came whole: neither an error nor nothing. */
export function hasCome({ status }: Resource): boolean {
  return status >= 200 && status < 300;
}
