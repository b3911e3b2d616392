import type { Conditions } from '../visitors/conditions.js';
import type { Network } from '../visitors/network.js';
import { amountOf, textOf, untrustedObject } from '../base/untrusted.js';
import type { UntrustedObject } from '../base/untrusted.js';

/** More CSS pixels than a window has, device pixels to one of them, and times that a processor is slowed down. */
const most = { side: 100_000, density: 20, factor: 1_000 } as const;

/**
 * The conditions of the loads of a page, where a HAR file of this program has them (`_conditions`); `null` where one of them is
 * missing or cannot be: half of them would let loads be compared that may not be.
 */
export function harConditions(page: UntrustedObject, browser: string): Conditions | null {
  const kept = untrustedObject(page['_conditions']);
  const network = networkOf(untrustedObject(kept['network']));
  const view = viewOf(untrustedObject(kept['view']));
  const cpuFactor = withinOf(kept['cpuFactor'], most.factor);
  if (!network || !view || !cpuFactor) return null;
  const { connecting } = kept;
  const tool = textOf(kept['tool']);
  return {
    ...{ network, cpuFactor, view, browser },
    cache: kept['cache'] === 'warm' ? 'warm' : 'cold',
    ...((connecting === 'shaped' || connecting === 'real') && { connecting }),
    ...(tool !== '' && { tool }),
  };
}

function networkOf(told: UntrustedObject): Network | null {
  const name = textOf(told['name']);
  const [latency, down, up] = [told['latency'], told['down'], told['up']].map(amountOf);
  if (name === '' || latency == null || down == null || up == null) return null;
  return { name, latency, down, up };
}

function viewOf(told: UntrustedObject): Conditions['view'] | null {
  const name = textOf(told['name']);
  const [width, height] = [told['width'], told['height']].map((side) => withinOf(side, most.side));
  const density = withinOf(told['density'], most.density);
  if (name === '' || !width || !height || !density) return null;
  if (!Number.isInteger(width) || !Number.isInteger(height)) return null;
  return { name, width, height, density, touch: told['touch'] === true };
}

/** A number above 0, and not above what can be; else `null`. */
function withinOf(value: unknown, highest: number): number | null {
  const number = amountOf(value);
  return number !== null && number > 0 && number <= highest ? number : null;
}
