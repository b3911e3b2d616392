/** One encode attempt and its result. */
export interface QualityAttempt {
  readonly quality: number;
  readonly similarity: number;
}

/** The part of the scale that is searched. */
export interface QualityRange {
  readonly least: number;
  readonly most: number;
}

/** The quality to start at: near where most photographs end. */
const firstGuess = 80;

/** The dissimilarity (1 − similarity) falls by about this part with each step of quality. */
const usualFall = 0.05;

/** How many steps above the lowest sufficient quality the result may be. */
export const qualityTolerance = 3;

/** More encodes than this are not made in one search. */
const maxTries = 5;

/**
 * Finds the lowest quality at which a picture is still like its original, to within `qualityTolerance`, with as few
 * encodes as it can. The logarithm of the dissimilarity is nearly a straight line over the quality: each try is
 * where the line through the last two meets the threshold, kept between what was too little and what was enough.
 *
 * @param threshold least similarity, 0 to 1
 * @param range qualities that are not left, whatever the similarity
 * @param tryOne encodes at a quality and answers with the similarity that came of it
 * @param isHopeless whether no higher quality than that of a try which was too little is of use
 * @returns the try that was chosen: the lowest that reaches the threshold, or else the best there was
 */
export async function searchQuality<Result extends QualityAttempt>(
  threshold: number,
  { least, most }: QualityRange,
  tryOne: (quality: number) => Promise<Result>,
  isHopeless: (result: Result) => boolean = () => false,
): Promise<Result> {
  const tried: Result[] = [];
  /** The highest quality that was too little, and the lowest try that was enough. */
  let tooLittle = least - 1;
  let enough: Result | undefined;
  let next = Math.min(most, Math.max(least, firstGuess));
  while (tried.length < maxTries) {
    const result = await tryOne(next);
    tried.push(result);
    if (result.similarity >= threshold) enough = result;
    else if (isHopeless(result)) break;
    else tooLittle = result.quality;
    const ceiling = enough ? enough.quality : most + 1;
    if (ceiling - tooLittle <= qualityTolerance && enough) break;
    if (tooLittle >= most) break;
    const guess = Math.min(most, Math.max(least, guessFrom(tried, threshold)));
    // Where the line says that the try just made is the answer, it is believed.
    if (enough && guess >= enough.quality - 1 && guess <= enough.quality) break;
    const isLast = tried.length === maxTries - 1;
    // Better a few bytes too many than too little.
    next = isLast && !enough ? most : Math.min(ceiling - 1, Math.max(tooLittle + 1, guess));
    if (tried.some(({ quality }) => quality === next)) break;
  }
  return enough ?? tried.reduce((best, one) => (one.similarity > best.similarity ? one : best));
}

/** The quality at which the threshold is reached, from the last tries. */
function guessFrom(tried: readonly QualityAttempt[], threshold: number): number {
  const last = tried.at(-1)!;
  const before = tried.at(-2);
  const goal = Math.log(Math.max(1e-6, 1 - threshold));
  const at = dissimilarity(last);
  let fall = usualFall;
  if (before && before.quality !== last.quality) {
    const slope = (dissimilarity(before) - at) / (last.quality - before.quality);
    // A line that is nearly level, or rises, says nothing.
    if (slope > usualFall / 10) fall = slope;
  }
  return Math.ceil(last.quality + (at - goal) / fall);
}

function dissimilarity({ similarity }: QualityAttempt): number {
  return Math.log(Math.max(1e-6, 1 - similarity));
}
