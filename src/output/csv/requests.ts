import { phaseNames } from '../../core/load/request.js';
import type { PageRequest } from '../../core/load/request.js';
import { chooseRequests } from '../../core/load/request-view.js';
import type { ClockView } from '../views/clock.js';
import { csvOf } from './csv.js';

const yesOrNo = (value: boolean) => (value ? 'yes' : 'no');

/** The requests of all sessions as one CSV table. */
export function clockCsv({ sessions, choice }: ClockView): string {
  return sessions
    .map(({ session, medianRun: { requests } }) =>
      requestsCsv(session.page, chooseRequests(requests, { ...choice, top: Infinity }).rows),
    )
    .map((table, index) => (index === 0 ? table : table.slice(table.indexOf('\n') + 1)))
    .join('\r\n');
}

/** Requests as CSV, one line each; times in milliseconds since the navigation began, to a tenth. */
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
      firstPriority: request.firstPriority,
      initiator: request.initiator,
      initiatedBy: request.initiatedBy?.url ?? null,
      initiatedAtLine: request.initiatedBy?.line ?? null,
      used: request.used === null ? null : yesOrNo(request.used),
      thirdParty: yesOrNo(request.thirdParty),
      renderBlocking: yesOrNo(request.renderBlocking),
      failure: request.failure,
    })),
  );
}
