import type { Trial } from '../core/survey.js';

/** What is kept of an encode. */
export function trialOf({ format, quality, bytes, similarity }: Trial): Trial {
  return { format, quality, bytes, similarity };
}
