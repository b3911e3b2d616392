import type { PageRequest } from '../../load/request.js';
import type { LargestContent } from '../../load/session.js';
import type { Network } from '../../visitors/network.js';
import type { Finding, FindingData, FindingKind } from '../finding.js';

/** One load, as the checks see it. */
export interface LoadCase {
  /** By their starts. */
  readonly requests: readonly PageRequest[];
  /** The request for the page itself, after its redirects. */
  readonly document: PageRequest | undefined;
  /** When a visitor could use the page, in milliseconds since the navigation began; `null` when that is not known. */
  readonly usable: number | null;
  readonly largest: LargestContent | null;
  /** Addresses of the pictures in the first screen; `null` when they are not known. */
  readonly firstScreen: ReadonlySet<string> | null;
  /** The network, where it is known. */
  readonly network: Network | null;
  /** Hosts that the program itself serves from a folder: how they are served says nothing about the site. */
  readonly servedHere: ReadonlySet<string>;
  /** The needed bytes of a picture, if a survey knows them. */
  readonly neededBytes: (url: string) => number | undefined;
}

/** What a check found in a load. */
export interface LoadEvidence<Data extends FindingData> {
  readonly data: Data;
  /** The request that it is about, where it is about one. */
  readonly url: string | null;
  /** The milliseconds it costs, if that can be computed. */
  readonly cost: number | null;
  /** Whether it happens after the page is usable: then no visitor waits for it. */
  readonly late: boolean;
}

/** Something about a load that an analyst would point at. */
export interface LoadFinding extends Finding, LoadEvidence<FindingData> {}

/** A kind of finding about one load. */
export interface LoadFindingKind<Id extends string, Data extends FindingData> extends FindingKind<
  Id,
  Data
> {
  check(load: LoadCase): readonly LoadEvidence<Data>[];
}

/** Declares a kind of finding about loads. */
export function loadFinding<const Id extends string, Data extends FindingData>(
  kind: LoadFindingKind<Id, Data>,
): LoadFindingKind<Id, Data> {
  return kind;
}

/** Whether a request had begun before the page was usable. */
export function isEarly({ start }: PageRequest, { usable }: LoadCase): boolean {
  return usable === null || start < usable;
}

/** Bytes of several requests on the wire. */
export function sumOfBytes(requests: readonly Pick<PageRequest, 'transferBytes'>[]): number {
  return requests.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
}
