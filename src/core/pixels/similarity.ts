import { largerBlocks } from './colours.js';
import type { BlockMeans, Colours } from './colours.js';
import { lostDetail } from './lost-detail.js';
import { halved } from './luma.js';
import type { Luma } from './luma.js';
import { brightnessShift, colourShift } from './shift.js';
import { structureLossOf } from './structure-loss.js';
import { halvingsOf } from './windows.js';

/** What a unit of each kind of damage weighs. */
const weights = {
  ...{ structure: 0.18, worstStructure: 0.49, brightness: 0.04 },
  red: { lost: 0.81, shift: 0.033 },
  blue: { lost: 0.3, shift: 0.013 },
} as const;

/**
 * How alike an encoded picture looks to the picture that it was made of, at the size in which it is shown: 1 for the same
 * picture, towards 0 for pictures that have nothing in common.
 *
 *     similarity = exp(−damage)
 *
 * The damage is a weighted sum: the structure that the luma has lost, on average at the size in which it is shown and in its
 * worst windows at a quarter of it (`structureLossOf`); the detail that both axes of colour have lost, in blocks of 4 and of
 * 8 pixels (`lostDetail`); and the shifts of brightness and of colour (`brightnessShift`, `colourShift`), which an encoder
 * seldom causes. The weights were chosen with photographs and two other measures; docs/model.md has the results. Pictures
 * that are too small for a scale are compared at the next larger one.
 *
 * @throws RangeError when the pictures are not of one size.
 */
export function similarity(ideal: Colours, encoded: Colours): number {
  if (ideal.luma.width !== encoded.luma.width || ideal.luma.height !== encoded.luma.height)
    throw new RangeError('only pictures of one size can be compared');
  const halvings = halvingsOf(ideal.luma);
  const atScale = (scale: number) =>
    [ideal, encoded].map(({ luma }) => scaledDown(luma, Math.min(scale, halvings))) as [Luma, Luma];
  const damage =
    weights.structure * structureLossOf(...atScale(0)).mean +
    weights.worstStructure * structureLossOf(...atScale(2)).worst +
    weights.brightness * brightnessShift(...atScale(1)) +
    colourDamage(ideal.red, encoded.red, weights.red) +
    colourDamage(ideal.blue, encoded.blue, weights.blue);
  return Math.exp(-damage);
}

function colourDamage(
  ideal: BlockMeans,
  encoded: BlockMeans,
  { lost, shift }: { readonly lost: number; readonly shift: number },
): number {
  const [larger, largerOther] = [largerBlocks(ideal), largerBlocks(encoded)];
  return (
    lost * (lostDetail(ideal, encoded) + lostDetail(larger, largerOther) / 2) +
    shift * colourShift(larger, largerOther)
  );
}

/** Halved so many times. */
function scaledDown(luma: Luma, times: number): Luma {
  return times === 0 ? luma : scaledDown(halved(luma), times - 1);
}
