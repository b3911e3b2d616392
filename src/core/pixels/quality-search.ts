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

/** What is known of a format before the first encode: where most photographs end, and how steep the way is. */
export interface QualityPrior {
  /** The quality to start at. */
  readonly first: number;
  /** The part by which the dissimilarity (1 − similarity) falls with each step of quality. */
  readonly fall: number;
}

/** What is assumed of an encoder that nothing is known of. */
const unknownPrior: QualityPrior = { first: 80, fall: 0.05 };

/** Two tries next to each other may lie on a line that is much steeper or flatter than the whole way: by no more than this. */
const maxBend = 3;

/** How many steps above the lowest sufficient quality the result may be. */
export const qualityTolerance = 3;

/** After fewer tries than this, one more is made for less: a step is about a twentieth of the bytes. */
const fewTries = 3;
const finerTolerance = 2;

/** More encodes than this are not made in one search. */
const maxTries = 5;

/**
 * Finds the lowest quality at which a picture is still like its original, to within `qualityTolerance`, with as few
 * encodes as it can. The logarithm of the dissimilarity is nearly a straight line over the quality: each try is
 * where the line through two others meets the threshold, the nearest on both sides of it, or else the last ones.
 *
 * @param threshold least similarity, 0 to 1
 * @param range qualities that are not left, whatever the similarity
 * @param tryOne encodes at a quality and answers with the similarity that came of it
 * @param isHopeless whether a try shows that no other quality is of use
 * @param prior what is known of the format
 * @returns the try that was chosen: the lowest that reaches the threshold, or else the best there was
 */
export async function searchQuality<Result extends QualityAttempt>(
  threshold: number,
  { least, most }: QualityRange,
  tryOne: (quality: number) => Promise<Result>,
  isHopeless: (result: Result) => boolean = () => false,
  prior = unknownPrior,
): Promise<Result> {
  const tried: Result[] = [];
  /** The highest try that was too little, and the lowest that was enough. */
  let short: Result | undefined;
  /** To creep up costs more than it saves: the steps grow with each try that was too little, however little. */
  let misses = 0;
  let enough: Result | undefined;
  let next = Math.min(most, Math.max(least, prior.first));
  while (tried.length < maxTries) {
    const result = await tryOne(next);
    tried.push(result);
    if (result.similarity >= threshold) enough = result;
    if (isHopeless(result)) break;
    if (result.similarity < threshold) [short, misses] = [result, misses + 1];
    const ceiling = enough ? enough.quality : most + 1;
    const tooLittle = short ? short.quality : least - 1;
    const tolerance = tried.length < fewTries ? finerTolerance : qualityTolerance;
    if (ceiling - tooLittle <= tolerance && enough) break;
    if (tooLittle >= most) break;
    const line = enough && short ? [short, enough] : tried;
    const guess = Math.min(most, Math.max(least, guessFrom(line, threshold, prior)));
    // Where the line says that the try just made is the answer, it is believed; nearly, if more than one try made the line.
    const off = tried.length > 1 ? 1 : 0;
    if (enough && guess >= enough.quality - off && guess <= enough.quality) break;
    const isLast = tried.length === maxTries - 1;
    // Better a few bytes too many than too little.
    next =
      isLast && !enough
        ? most
        : Math.min(ceiling - 1, Math.max(tooLittle + Math.max(1, misses), guess));
    if (tried.some(({ quality }) => quality === next)) break;
  }
  return enough ?? tried.reduce((best, one) => (one.similarity > best.similarity ? one : best));
}

/** The quality at which the threshold is reached, from the last two tries. */
function guessFrom(
  tried: readonly QualityAttempt[],
  threshold: number,
  { fall: usual }: QualityPrior,
): number {
  const last = tried.at(-1)!;
  const before = tried.at(-2);
  const goal = Math.log(Math.max(1e-6, 1 - threshold));
  const at = dissimilarity(last);
  let fall = usual;
  if (before && before.quality !== last.quality) {
    const slope = (dissimilarity(before) - at) / (last.quality - before.quality);
    fall = Math.min(usual * maxBend, Math.max(usual / maxBend, slope));
  }
  return Math.ceil(last.quality + (at - goal) / fall);
}

function dissimilarity({ similarity }: QualityAttempt): number {
  return Math.log(Math.max(1e-6, 1 - similarity));
}
