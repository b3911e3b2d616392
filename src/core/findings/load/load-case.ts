import type { Network } from '../../visitors/network.js';
import type { PageRequest } from '../../load/request.js';
import type { LargestContent } from '../../load/session.js';

/** One load, as the checks look at it. */
export interface LoadCase {
  /** In the order of their starts. */
  readonly requests: readonly PageRequest[];
  /** The request of the page itself, after its redirects. */
  readonly document: PageRequest | undefined;
  /** When a visitor could use the page, in milliseconds since the navigation began; `null` when that is not known. */
  readonly usable: number | null;
  readonly largest: LargestContent | null;
  /** Addresses of the pictures in the first screen; `null` when they are not known. */
  readonly firstScreen: ReadonlySet<string> | null;
  /** The line, where it is known. */
  readonly network: Network | null;
  /** What a picture would weigh at its need, in bytes, where a survey knows it. */
  readonly neededBytes: (url: string) => number | undefined;
}

/** Something about a load that an analyst would point at. */
export interface LoadFinding {
  readonly id: string;
  /** With its evidence, in words. */
  readonly message: string;
  /** The request that it is about, where it is about one. */
  readonly url: string | null;
  /** Milliseconds that it costs, where that can be said. */
  readonly cost: number | null;
  /** Whether it happens after the page is usable: then it costs no visitor anything. */
  readonly late: boolean;
}

/** One thing to look for. */
export type LoadCheck = (load: LoadCase) => LoadFinding | readonly LoadFinding[] | undefined;

/** Milliseconds as they stand in a finding. */
export function timeText(milliseconds: number): string {
  return milliseconds < 1_000
    ? `${Math.round(milliseconds)} ms`
    : `${(milliseconds / 1_000).toFixed(2)} s`;
}

/** Bytes as they stand in a finding. */
export function bytesText(bytes: number): string {
  if (bytes < 1_000) return `${Math.round(bytes)} B`;
  return bytes < 1_000_000
    ? `${Math.round(bytes / 1_000)} kB`
    : `${(bytes / 1_000_000).toFixed(2)} MB`;
}

/** Whether a request had begun before the page was usable. */
export function isEarly({ start }: PageRequest, { usable }: LoadCase): boolean {
  return usable === null || start < usable;
}
