/** What is won after each of several fixes, the one that saves the most first. */
export interface FixCurve {
  /** Bytes of an average visit saved by as many fixes as the place says: the first is 0, for none. */
  readonly saved: readonly number[];
}

/** @param savings bytes of an average visit, one for each fix, in any order */
export function fixCurve(savings: readonly number[]): FixCurve {
  const saved = [0];
  for (const bytes of savings.toSorted((a, b) => b - a))
    if (bytes > 0) saved.push(saved.at(-1)! + bytes);
  return { saved };
}

/** After how many fixes a share of everything is won; 0 where there is nothing to win. */
export function fixesFor({ saved }: FixCurve, share: number): number {
  const all = saved.at(-1)!;
  // Sums of many fractions miss the whole by a little.
  return all === 0 ? 0 : saved.findIndex((bytes) => bytes >= all * share * (1 - 1e-9));
}
