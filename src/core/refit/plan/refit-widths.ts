/** A width that is less than so much narrower than the next is not worth a file. */
const worthAFile = 0.9;

/**
 * Of the widths that are wanted, those that are worth a file beside one that is made anyway, the narrowest first.
 *
 * @param most the widest that is wanted; it is among them, unless it is made anyway
 * @param made the width that is made anyway
 */
export function narrower(wanted: readonly number[], most: number, made: number): number[] {
  const chosen = most > made ? [most] : [];
  let last = most;
  for (const width of [...new Set(wanted)].sort((a, b) => b - a)) {
    if (width > last * worthAFile) continue;
    // What is made anyway serves whoever needs a little less.
    if (width <= made && width > made * worthAFile) {
      last = made;
      continue;
    }
    chosen.unshift(width);
    last = width;
  }
  return chosen.filter((width) => width !== made);
}
