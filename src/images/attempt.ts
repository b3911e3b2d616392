import type { EncodeAttempt } from '../core/survey/encoded.js';

/** The stored result of an encode. */
export function attemptOf({ format, quality, bytes, similarity }: EncodeAttempt): EncodeAttempt {
  return { format, quality, bytes, similarity };
}
