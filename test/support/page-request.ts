import { noPhases, phaseNames } from '../../src/core/load/request.js';
import type { PageRequest, Phases } from '../../src/core/load/request.js';

/** A request as it might have been, with its end where its phases put it. */
export function pageRequest(
  url: string,
  {
    phases = {},
    ...more
  }: Partial<Omit<PageRequest, 'phases'>> & { phases?: Partial<Phases> } = {},
): PageRequest {
  const all = { ...noPhases, ...phases };
  const start = more.start ?? 0;
  return {
    url,
    method: 'GET',
    type: 'image',
    status: 200,
    statusText: 'OK',
    mediaType: 'image/png',
    protocol: 'http/1.1',
    start,
    end: start + phaseNames.reduce((sum, name) => sum + all[name], 0),
    phases: all,
    transferBytes: 1_000,
    bodyBytes: 900,
    fromCache: false,
    priority: 'Low',
    firstPriority: 'Low',
    initiator: 'parser',
    initiatedBy: null,
    used: null,
    thirdParty: false,
    renderBlocking: false,
    requestHeaders: [],
    responseHeaders: [],
    serverAddress: '',
    redirectsTo: '',
    failure: null,
    ...more,
  };
}
