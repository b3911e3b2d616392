import { hostOf } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import type { PageRequest } from '../../load/request.js';
import { isEarly, loadFinding } from './load-case.js';
import type { LoadCase } from './load-case.js';

/** Whether the server closed the connection behind a response (RFC 9112, section 9.6). */
export function isClosedAfter({ responseHeaders, protocol }: PageRequest): boolean {
  const connection = responseHeaders
    .filter(({ name }) => name.toLowerCase() === 'connection')
    .map(({ value }) => value.toLowerCase())
    .join();
  if (/^http\/1\.0/.test(protocol)) return !connection.includes('keep-alive');
  return /^http\/1/.test(protocol) && /\bclose\b/.test(connection);
}

/** The connections that are opened before the page is usable, by host. */
export function connectionsByHost(load: LoadCase): ReadonlyMap<string, PageRequest[]> {
  const connecting = load.requests.filter(
    (request) =>
      request.phases.connect + request.phases.tls > 0 &&
      isEarly(request, load) &&
      !load.servedHere.has(hostOf(request.url)),
  );
  return groupBy(connecting, ({ url }) => hostOf(url));
}

/** What the connections after the first cost, in milliseconds. */
export function timeOfFurther(opened: readonly PageRequest[]): number {
  return opened.slice(1).reduce((sum, { phases }) => sum + phases.connect + phases.tls, 0);
}

/** Connections that the server closes after a response, so that the next request needs another one. */
export const closedConnections = loadFinding({
  id: 'closed-connections',
  title: 'the server closes connections',
  doer: 'server',
  fix: 'Keep connections alive: turn keep-alive on, and allow many requests on a connection.',
  isWork: false,
  docs: {
    meaning: 'The server closes the connection after a response.',
    why: 'Each file is a new connection.',
    computed: 'By connections and the header connection (RFC 9112, section 9.6).',
    ignore: 'Where the server sends a single file.',
  },
  check: (load) =>
    [...connectionsByHost(load)].flatMap(([host, opened]) => {
      const closed = load.requests.filter(
        (request) => hostOf(request.url) === host && isClosedAfter(request),
      ).length;
      if (closed === 0 || opened.length < 2) return [];
      const data = { host, closed, connections: opened.length, spent: timeOfFurther(opened) };
      return [{ data, url: null, cost: null, late: false }];
    }),
  describe: ({ host, closed, connections: opened, spent }, { time, count }) =>
    `${host} closes the connection after ${count(closed, 'response')}: ${count(opened, 'connection')}, of which all but the first take ${time(spent)} to open; keep-alive would keep them`,
});
