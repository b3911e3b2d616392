import { relativePathOf, splitExtension } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import type { Size } from '../../base/size.js';
import type { Policy } from '../../policy/policy.js';
import { usualExponent } from '../../survey/encoded.js';
import { planWidths, usualSlack } from '../../slots/width-plan.js';
import { askedWidth } from './own-choices.js';
import type { OwnChoice } from './own-choices.js';
import type { OwnCandidate } from './own-widths.js';
import { narrower } from './refit-widths.js';

/** The widths that a site should make of its pictures besides those that it makes. */
export interface SystemWidths {
  /** All of them, ascending: a list to enter once. */
  readonly all: readonly number[];
  /** The widths of one picture, by the address of its widest candidate. */
  readonly of: (url: string) => readonly number[];
  /** The path that the site would give to a size of that picture; `null` where nobody can tell. */
  readonly pathOf: (url: string, size: Size) => string | null;
}

/** A candidate that is less than a tenth wider than what is asked for serves as well. */
const nearEnough = 0.9;

/**
 * The widths that are missing: for each slot family at most as many as the policy says, none where a candidate of the site
 * is near enough.
 *
 * @param sizesOf the text of `sizes` that an element will have
 */
export function planSystemWidths(
  choices: readonly OwnChoice[],
  sizesOf: (choice: OwnChoice) => string | null,
  policy: Pick<Policy, 'widths'>,
): SystemWidths {
  const ofPicture = new Map<string, Set<number>>();
  const candidatesOf = new Map(
    choices.map(({ candidates }) => [candidates.at(-1)!.url, candidates]),
  );
  const families = groupBy(choices, ({ where, slot }) => `${where}\n${slot}`);
  for (const family of families.values()) {
    const missing = family
      .map((choice) => ({ choice, width: askedWidth(sizesOf(choice), choice.view) }))
      .filter(({ choice, width }) => !isServed(choice.candidates, width));
    const demands = missing.map(({ choice: { weight }, width }) => ({
      width,
      bytesAt: (pixels: number) => weight * pixels ** (2 * usualExponent),
    }));
    const { widths } = planWidths(demands, policy.widths, usualSlack);
    if (widths.length === 0) continue;
    const planned = narrower(widths, Math.max(...widths), 0);
    for (const { choice } of missing) {
      const { url, width: widest } = choice.candidates.at(-1)!;
      const known = ofPicture.get(url) ?? new Set();
      for (const width of planned)
        if (width < widest && !isServed(choice.candidates, width)) known.add(width);
      ofPicture.set(url, known);
    }
  }
  const all = [...new Set([...ofPicture.values()].flatMap((widths) => [...widths]))];
  return {
    all: all.sort((a, b) => a - b),
    of: (url) => [...(ofPicture.get(url) ?? [])].sort((a, b) => a - b),
    pathOf: (url, size) =>
      (candidatesOf.get(url) ?? [])
        .toReversed()
        .reduce<string | null>((path, one) => path ?? systemPath(one, size), null),
  };
}

function isServed(candidates: readonly OwnCandidate[], width: number): boolean {
  if (width >= candidates.at(-1)!.width) return true;
  return candidates.some((one) => one.width >= width && one.width * nearEnough <= width);
}

/**
 * The path that the site would give to another width of a picture, as it named one of the others: with the width, or width
 * and height, in the place of theirs; `null` where it tells widths otherwise (`?w=800`).
 */
export function systemPath({ url, width }: OwnCandidate, wanted: Size): string | null {
  if (new URL(url).search !== '') return null;
  const { stem, extension } = splitExtension(relativePathOf(url));
  const both = new RegExp(`(^|\\D)${width}x\\d+(?!\\d)`);
  if (both.test(stem)) return stem.replace(both, `$1${wanted.width}x${wanted.height}`) + extension;
  const alone = new RegExp(`(^|\\D)${width}(?!\\d)(?!.*\\D${width}(?!\\d))`);
  return alone.test(stem) ? stem.replace(alone, `$1${wanted.width}`) + extension : null;
}
