import type { EncodeAttempt } from '../core/survey/encoded.js';

/** The stored result of an encode. */
export function attemptOf(attempt: EncodeAttempt): EncodeAttempt {
  const { format, quality, bytes, similarity, isDraft } = attempt;
  return { format, quality, bytes, similarity, isDraft };
}
