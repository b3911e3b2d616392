import type { BlockMeans } from './colours.js';

/**
 * The weights of the surroundings of a block, from itself to the third block on either side: a Gaussian with a standard deviation
 * of 1.5 blocks.
 */
const [k0, k1, k2, k3] = gaussian(1.5, 3) as [number, number, number, number];

/** The ideal is compared with one file after the other, and each file twice: surroundings are averaged once. */
const known = new WeakMap<BlockMeans, Float32Array>();

/**
 * How much of the coloured detail of a picture is lost along one axis of colour: by how much less each block differs from its
 * surroundings than it did, 0 to 1, pooled by the 4-norm, so that the worst places weigh more. With the pictures exchanged, it
 * is how much detail was added.
 *
 * Source: the "detail lost" of SSIMULACRA 2 (J. Sneyers, 2022), on means of blocks instead of pixels.
 */
export function lostDetail(ideal: BlockMeans, encoded: BlockMeans): number {
  const { values } = ideal;
  if (values.length === 0) return 0;
  const [before, after] = [surroundings(ideal), surroundings(encoded)];
  const { values: others } = encoded;
  let fourths = 0;
  for (let at = 0; at < values.length; at++) {
    const was = Math.abs(values[at]! - before[at]!);
    const is = Math.abs(others[at]! - after[at]!);
    if (is >= was) continue;
    const lost = (was - is) / (255 + was);
    const squared = lost * lost;
    fourths += squared * squared;
  }
  return (fourths / values.length) ** (1 / 4);
}

function surroundings(blocks: BlockMeans): Float32Array {
  const means = known.get(blocks) ?? averaged(blocks);
  known.set(blocks, means);
  return means;
}

function averaged({ across, down, values }: BlockMeans): Float32Array {
  const rows = new Float32Array(values.length);
  for (let column = 0; column < across; column++) {
    const [a, b, c, d, e, f] = around(column, across);
    for (let at = 0; at < values.length; at += across)
      rows[at + column] =
        k0 * values[at + column]! +
        k1 * (values[at + a]! + values[at + b]!) +
        k2 * (values[at + c]! + values[at + d]!) +
        k3 * (values[at + e]! + values[at + f]!);
  }
  const means = new Float32Array(values.length);
  for (let row = 0; row < down; row++) {
    const [a, b, c, d, e, f] = around(row, down);
    for (let column = 0; column < across; column++)
      means[row * across + column] =
        k0 * rows[row * across + column]! +
        k1 * (rows[a * across + column]! + rows[b * across + column]!) +
        k2 * (rows[c * across + column]! + rows[d * across + column]!) +
        k3 * (rows[e * across + column]! + rows[f * across + column]!);
  }
  return means;
}

/** The places on both sides of one, the nearest first. Beyond its edges, a picture goes on as its mirror image, at most once. */
function around(place: number, length: number): [number, number, number, number, number, number] {
  const inside = (at: number) => {
    const mirrored = at < 0 ? -at : at < length ? at : 2 * length - 2 - at;
    return Math.min(length - 1, Math.max(0, mirrored));
  };
  return [
    ...[inside(place - 1), inside(place + 1)],
    ...[inside(place - 2), inside(place + 2)],
    ...[inside(place - 3), inside(place + 3)],
  ] as [number, number, number, number, number, number];
}

/** From the middle outwards; with both sides, they are 1 together. */
function gaussian(deviation: number, reach: number): readonly number[] {
  const heights = Array.from({ length: reach + 1 }, (_, at) =>
    Math.exp(-(at ** 2) / (2 * deviation ** 2)),
  );
  const sum = heights.reduce((total, height, at) => total + (at === 0 ? 1 : 2) * height, 0);
  return heights.map((height) => height / sum);
}
