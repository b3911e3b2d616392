import { setTimeout as after } from 'node:timers/promises';

/** A piece of work took longer than its limit. */
export class LateError extends Error {
  override readonly name = 'LateError';
}

/**
 * Waits for work that may never end, and leaves nothing behind when it does.
 *
 * @param most milliseconds that it may take
 * @throws LateError with these words when it takes longer.
 */
export async function within<Result>(
  most: number,
  work: Promise<Result>,
  words: () => string,
): Promise<Result> {
  const giveUp = new AbortController();
  const late = after(most, undefined, { signal: giveUp.signal }).then(() => {
    throw new LateError(words());
  });
  late.catch(() => {});
  try {
    return await Promise.race([work, late]);
  } finally {
    giveUp.abort();
  }
}
