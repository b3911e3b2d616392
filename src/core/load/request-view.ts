import { hostOf } from '../address/address.js';
import { isOnHost } from '../address/on-host.js';
import type { PageRequest, RequestType } from './request.js';

export const requestSortKeys = ['start', 'bytes', 'time'] as const;
export type RequestOrder = (typeof requestSortKeys)[number];

/** The requests of a load to show, and their order. */
export interface RequestChoice {
  readonly sort: RequestOrder;
  /** Content types; all when it is left out. */
  readonly only?: readonly RequestType[];
  /** Hosts, with or without their ports and subdomains; all when it is left out. */
  readonly hosts?: readonly string[];
  readonly top: number;
}

export interface ChosenRequests {
  readonly rows: readonly PageRequest[];
  /** Requests that the choice names and that are beyond the top. */
  readonly left: { readonly count: number; readonly bytes: number };
  /** Requests that the choice does not name. */
  readonly others: number;
}

/** The requests of a choice: by their starts, or the most bytes or the longest time first. */
export function chooseRequests(
  requests: readonly PageRequest[],
  { sort, only = [], hosts = [], top }: RequestChoice,
): ChosenRequests {
  const named = requests.filter(
    ({ type, url }) =>
      (only.length === 0 || only.includes(type)) &&
      (hosts.length === 0 || hosts.some((host) => isOnHost(hostOf(url), host))),
  );
  const ordered = [...named].sort((a, b) => keys[sort](a) - keys[sort](b));
  const rows = ordered.slice(0, top);
  const left = ordered.slice(top);
  return {
    rows,
    left: {
      count: left.length,
      bytes: left.reduce((sum, { transferBytes }) => sum + transferBytes, 0),
    },
    others: requests.length - named.length,
  };
}

const keys: Readonly<Record<RequestOrder, (request: PageRequest) => number>> = {
  start: ({ start }) => start,
  bytes: ({ transferBytes }) => -transferBytes,
  time: ({ start, end }) => -((end ?? Infinity) - start),
};

/** Milliseconds to the last thing of a load that a drawing of it must hold. */
export function lengthOf(requests: readonly PageRequest[], load: number | null): number {
  return requests.reduce(
    (length, { start, end }) => Math.max(length, end ?? start),
    Math.max(1, load ?? 0),
  );
}
