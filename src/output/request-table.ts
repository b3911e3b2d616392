import { phaseNames } from '../core/request.js';
import type { PageRequest } from '../core/request.js';
import { csvOf } from './csv.js';

/** Requests as CSV, one row each; times in milliseconds since the navigation began, to a tenth. */
export function requestsCsv(page: string, requests: readonly PageRequest[]): string {
  const tenth = (value: number) => Math.round(value * 10) / 10;
  return csvOf(
    requests.map((request) => ({
      page,
      url: request.url,
      type: request.type,
      status: request.status,
      start: tenth(request.start),
      ...Object.fromEntries(phaseNames.map((name) => [name, tenth(request.phases[name])])),
      end: request.end === null ? null : tenth(request.end),
      transferBytes: request.transferBytes,
      bodyBytes: request.bodyBytes,
      mediaType: request.mediaType,
      protocol: request.protocol,
      priority: request.priority,
      initiator: request.initiator,
      thirdParty: request.thirdParty ? 'yes' : 'no',
      renderBlocking: request.renderBlocking ? 'yes' : 'no',
      failure: request.failure,
    })),
  );
}
