import { largerBlocks } from './colours.js';
import type { BlockMeans, Colours } from './colours.js';
import { lostDetail } from './lost-detail.js';
import { maskedError } from './masked-error.js';
import { colourShift, lightnessShift } from './shift.js';
import { structureLossOf } from './structure-loss.js';
import { texturedPart } from './texture.js';
import { windowsOf } from './windows.js';

/** What a unit of each kind of damage weighs, all over the picture and in its worst places. */
const weights = {
  everywhere: { structure: 0.116, lines: 0.0199, red: 0.764, blue: 0.247 },
  worst: {
    ...{ structure: 0.0172, error: 0.00393, lightness: 0.0072 },
    ...{ red: 0.109, blue: 0.00886, added: 2.48 },
  },
} as const;

/**
 * How alike an encoded picture looks to the picture that it was made of, at the size in which it is shown: 1 for the same
 * picture, towards 0 for pictures that have nothing in common.
 *
 *     similarity = exp(−damage)
 *     damage = ((everywhere⁴ + worst⁴) / textured)^(1/4)
 *
 * so that the greater of two kinds of damage decides: what the whole picture has lost, which is structure
 * (`structureLossOf`) and detail of both axes of colour, in blocks of 4 and of 8 pixels (`lostDetail`); and what its worst
 * places suffer, which is lost structure, errors that no texture hides (`maskedError`), blotches of blue and yellow (the
 * detail that the axis has gained), and shifts of lightness and of colour (`lightnessShift`, `colourShift`). Both are counted for
 * the part of the picture that is not smooth (`texturedPart`). The weights were chosen with photographs and two other measures;
 * docs/model.md has the results.
 *
 * @throws RangeError when the pictures are not of one size.
 */
export function similarity(ideal: Colours, encoded: Colours): number {
  const [one, other] = [ideal.lightness, encoded.lightness];
  if (one.width !== other.width || one.height !== other.height)
    throw new RangeError('only pictures of one size can be compared');
  const windows = windowsOf(one, other);
  const structure = structureLossOf(windows);
  const red = colourDamage(ideal.red, encoded.red);
  const blue = colourDamage(ideal.blue, encoded.blue);
  const { everywhere, worst } = weights;
  const inAll =
    everywhere.structure * structure.mean +
    everywhere.lines * structure.lines +
    everywhere.red * red.lost +
    everywhere.blue * blue.lost;
  const inPlaces =
    worst.structure * structure.worst +
    worst.error * maskedError(windows) +
    worst.lightness * lightnessShift(windows) +
    worst.red * red.shift +
    worst.blue * blue.shift +
    worst.added * addedDetail(ideal.blue, encoded.blue);
  return Math.exp(-(((inAll ** 4 + inPlaces ** 4) / texturedPart(windows)) ** (1 / 4)));
}

/** What one axis of colour has lost of its detail, and by how much it is another. */
function colourDamage(ideal: BlockMeans, encoded: BlockMeans) {
  const [larger, largerOther] = [largerBlocks(ideal), largerBlocks(encoded)];
  return {
    lost: lostDetail(ideal, encoded) + lostDetail(larger, largerOther) / 2,
    shift: colourShift(larger, largerOther),
  };
}

function addedDetail(ideal: BlockMeans, encoded: BlockMeans): number {
  return lostDetail(largerBlocks(encoded), largerBlocks(ideal));
}
