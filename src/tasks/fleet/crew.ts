import { pause } from '../../crawl/pacer.js';
import type { FleetStore } from '../../store/postgres/fleet.js';
import type { Workspace } from '../../store/workspace.js';
import { UsageError } from '../../core/base/errors.js';
import type { Crew, SurveyOptions, WorkOptions } from '../survey/survey-options.js';
import { taskName } from './measures.js';
import { Queue } from './queue.js';
import { RemoteWork } from './remote-work.js';

/** How a survey is worked on, as workers are told: all but what lets somebody in, which never stands in a database. */
export type FleetSettings = Pick<
  SurveyOptions,
  | 'policy'
  | 'groups'
  | 'ignoreRobots'
  | 'userAgent'
  | 'anyCertificate'
  | 'pace'
  | 'retries'
  | 'limits'
  | 'noBodies'
  | 'noPictures'
  | 'noEncodes'
  | 'hosts'
  | 'allowedHosts'
>;

export function fleetSettingsOf(options: Omit<WorkOptions, 'views' | 'scope'>): FleetSettings {
  const { policy, groups, ignoreRobots, userAgent, anyCertificate, pace, retries } = options;
  const { limits, noBodies, noPictures, noEncodes, hosts, allowedHosts } = options;
  const settings = {
    ...{ policy, groups, ignoreRobots, userAgent, anyCertificate, pace, retries },
    ...{ limits, noBodies, noPictures, noEncodes, hosts, allowedHosts },
  };
  return settings;
}

/**
 * The workers of a workspace on a server.
 *
 * @param measures what the measurements of this program depend on
 * @param doesAll whether they visit all pages, and this program only leads
 * @param onBegin called when this program leads a survey, and no other can
 * @throws UsageError for a workspace that is no server's.
 */
export function crewOf(
  workspace: Workspace,
  measures: string,
  doesAll: boolean,
  onBegin: (label: string) => void = () => {},
): Crew {
  const { store, address } = fleetOf(workspace);
  return {
    doesAll,
    turn: (url, pace, signal) => takeTurn(store, url, pace, signal),
    begin: (head, options) => {
      onBegin(head.label);
      store.offer(head.id, fleetSettingsOf(options), measures);
      const work = new RemoteWork({
        ...{ fleet: store, survey: head.id, measures, signal: options.signal },
        queue: new Queue(address, taskName(measures)),
      });
      return {
        visitors: (views) => work.visitors(views),
        get hasRoomForEncode() {
          return work.hasRoomForEncode;
        },
        get capacity() {
          return work.capacity;
        },
        encode: (contentHash, need) => work.encode(contentHash, need),
        sum: (part, closing) => work.sum(part, closing),
        close: async (isStopped) => {
          await work.close();
          // Late answers are of no use to anybody.
          if (!isStopped) store.clear(head.id);
          // A worker that stops leaves it to the next; a person who stops a survey wants it stopped.
          else if (!doesAll) store.withdraw(head.id);
        },
      };
    },
  };
}

/** Waits until a page may be loaded at the pace that all programs on a workspace keep together. */
export async function takeTurn(
  store: FleetStore,
  url: string,
  milliseconds: number,
  signal?: AbortSignal,
): Promise<void> {
  if (milliseconds > 0) await pause(store.turn(new URL(url).host, milliseconds), signal);
}

/** @throws UsageError for a workspace that is no server's. */
export function fleetOf({ fleet }: Workspace): NonNullable<Workspace['fleet']> {
  if (fleet) return fleet;
  throw new UsageError('workers share a workspace on a PostgreSQL server', {
    hint: 'name one: --workspace postgres://user@host/database',
  });
}
