import { closest, distance } from 'fastest-levenshtein';

/** The known word that a misspelt one is likely to mean, or `undefined` when none is near. */
export function nearest(word: string, known: readonly string[]): string | undefined {
  if (known.length === 0) return undefined;
  const candidate = closest(word, [...known]);
  return distance(word, candidate) <= Math.max(2, word.length / 3) ? candidate : undefined;
}
