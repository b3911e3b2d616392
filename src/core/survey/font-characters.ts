import type { Resources } from './resource.js';

/** The characters that the pages of a survey draw with each font, by its content hash, in the order of their code points. */
export function charactersOf({ list, loads }: Resources): Map<string, string> {
  const hashes = new Map(list.map(({ url, contentHash }) => [url, contentHash]));
  const sets = new Map<string, Set<string>>();
  for (const load of loads)
    for (const { url, characters } of load?.fontUse ?? []) {
      const contentHash = hashes.get(url);
      if (!contentHash) continue;
      const set = sets.get(contentHash) ?? new Set();
      sets.set(contentHash, set);
      for (const character of characters) set.add(character);
    }
  return new Map(
    [...sets].map(([contentHash, set]) => [
      contentHash,
      [...set].sort((a, b) => a.codePointAt(0)! - b.codePointAt(0)!).join(''),
    ]),
  );
}
