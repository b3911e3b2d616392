import { Mutes } from '../../core/policy/mutes.js';
import type { Policy } from '../../core/policy/policy.js';

type LoadFinding = { readonly id: string; readonly url: string | null };

/** The findings on a load of a page without those that the policy mutes. */
export function withoutMutedLoads<Found extends LoadFinding>(
  found: readonly Found[],
  page: string,
  policy: Pick<Policy, 'mute'> | undefined,
): Found[] {
  const mutes = new Mutes(policy?.mute ?? []);
  return found.filter(({ id, url }) => !mutes.isMuted(id, { urls: [url ?? page], groups: [] }));
}
