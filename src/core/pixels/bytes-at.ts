/** An encode: how long it is, and how like its original. */
export interface Encode {
  readonly bytes: number;
  readonly similarity: number;
}

/** How the bytes of one encoder fall with the dissimilarity it may have, where only one encode of a picture is known. */
const usualFall = 0.9;

/** An encode whose dissimilarity is this near to what is asked, as a natural logarithm, tells the bytes to a few per cent. */
const near = 0.2;

/** Two encodes tell the bytes at what lies between them, if neither is farther from it than this. */
const between = 0.3;

/**
 * The bytes that one encoder would need for a picture at a similarity, from encodes of it: the logarithm of the bytes is nearly
 * a straight line over the logarithm of the dissimilarity (1 − similarity). Where there are encodes on both sides of what is
 * asked, it lies between the nearest of each.
 *
 * @param threshold 0 to 1
 * @throws RangeError without any encode.
 */
export function bytesAt(encodes: readonly Encode[], threshold: number): number {
  const [nearest, next] = byDistance(around(encodes, threshold) ?? encodes, threshold);
  if (!nearest) throw new RangeError('no encode to tell the bytes from');
  const apart = next ? dissimilarity(nearest.similarity) - dissimilarity(next.similarity) : 0;
  const measured = next && apart !== 0 ? Math.log(next.bytes / nearest.bytes) / apart : usualFall;
  // Two encodes that are nearly the same file say nothing of the way.
  const fall = Math.min(3 * usualFall, Math.max(usualFall / 6, measured));
  const way = dissimilarity(nearest.similarity) - dissimilarity(threshold);
  return Math.round(nearest.bytes * Math.exp(fall * way));
}

/** Whether the bytes at a similarity follow from some encodes to a few per cent. */
export function tellsBytesAt(encodes: readonly Encode[], threshold: number): boolean {
  const goal = dissimilarity(threshold);
  const ways = encodes.map(({ similarity }) => dissimilarity(similarity) - goal);
  if (ways.some((way) => Math.abs(way) <= near)) return true;
  return (
    ways.some((way) => way < 0 && way >= -between) && ways.some((way) => way > 0 && way <= between)
  );
}

/** The least similar encode that is enough, and the most similar that is not; `undefined` where all are on one side. */
function around(encodes: readonly Encode[], threshold: number): readonly Encode[] | undefined {
  const [enough] = byDistance(
    encodes.filter(({ similarity }) => similarity >= threshold),
    threshold,
  );
  const [tooLittle] = byDistance(
    encodes.filter(({ similarity }) => similarity < threshold),
    threshold,
  );
  return enough && tooLittle && [enough, tooLittle];
}

function byDistance<One extends Encode>(encodes: readonly One[], threshold: number): One[] {
  const goal = dissimilarity(threshold);
  const way = ({ similarity }: One) => Math.abs(dissimilarity(similarity) - goal);
  return [...encodes].sort((one, other) => way(one) - way(other));
}

function dissimilarity(similarity: number): number {
  return Math.log(Math.max(1e-6, 1 - similarity));
}
