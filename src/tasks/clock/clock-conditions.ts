import { isServedHere } from '../../reach/host-map.js';
import type { Conditions } from '../../core/visitors/conditions.js';
import type { Network } from '../../core/visitors/network.js';
import type { OpenStarts } from '../survey/starts.js';
import type { ClockOptions } from './clock-options.js';

/** Milliseconds that connecting is made to take: if all pages come from this machine, as long as on a real network. */
export function connectingTime({ urls, reach }: OpenStarts, { latency }: Network): number {
  return urls.every((url) => isServedHere(url, reach.hosts)) ? latency : 0;
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
