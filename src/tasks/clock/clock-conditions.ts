import { isServedHere, placeIn, slowConnections } from '../../browser/chromium/slow-connections.js';
import type { SlowConnections } from '../../browser/chromium/slow-connections.js';
import type { Conditions } from '../../core/visitors/conditions.js';
import type { Network } from '../../core/visitors/network.js';
import type { OpenStarts } from '../survey/starts.js';
import type { ClockOptions } from './clock-options.js';

/** If all pages come from this machine, connecting is made to take as long as on a real network. */
export async function connectionsFor(
  { urls, hosts }: OpenStarts,
  { latency }: Network,
): Promise<SlowConnections | undefined> {
  const here = latency > 0 && urls.every((url) => isServedHere(url, hosts));
  return here ? slowConnections(latency, (host, port) => placeIn(hosts, host, port)) : undefined;
}

/** The conditions of all loads of a call; each session adds the state of its cache. */
export function conditionsOf(
  { network, cpuFactor, view, creator }: ClockOptions,
  browser: string,
  shaped: boolean,
): Conditions {
  const { name, width, height, density, touch } = view;
  const seen = { name, width, height, density, touch };
  return {
    network,
    cpuFactor,
    view: seen,
    browser,
    cache: 'cold',
    connecting: shaped ? 'shaped' : 'real',
    tool: `${creator.name} ${creator.version}`,
  };
}
