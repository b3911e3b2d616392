import { setTimeout as pause } from 'node:timers/promises';
import { errorOf } from './failures.js';
import { failureOf, mayPass } from './passing.js';

/** How often a server that comes and goes is asked, and the first pause in milliseconds; each next one is twice as long. */
const mostAttempts = 9;
const firstPause = 250;

/**
 * Asks a server that is not there again, for a minute. What it is asked must be such that it may be done twice.
 *
 * @param shown the address, as people may see it
 * @throws WorkspaceError when it stays away, or says no
 */
export async function patiently<Answer>(
  shown: string,
  ask: () => Promise<Answer>,
): Promise<Answer> {
  for (let attempt = 1; ; attempt++)
    try {
      return await ask();
    } catch (error) {
      if (attempt === mostAttempts || !mayPass(error))
        throw errorOf(failureOf(error, mayPass(error)), shown);
      await pause(firstPause * 2 ** (attempt - 1));
    }
}
