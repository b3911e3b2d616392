import type { CurvePiece } from './slot-curve.js';

/** The largest distance of the text from the line of a piece, in CSS pixels. */
const tolerance = 0.5;

/**
 * The `sizes` attribute that says a slot curve: right to a pixel over its whole range (half a pixel that the
 * curve may be off, and half a pixel of rounding), with as few entries and digits as that takes. Where the
 * slot is not shown the entry before goes on, and so do the first and the last beyond the range.
 *
 * @param pieces in ascending order, at least one
 */
export function sizesText(pieces: readonly CurvePiece[]): string {
  const entries: { to: number; length: string }[] = [];
  pieces.forEach((piece, index) => {
    const next = pieces[index + 1];
    const length = lengthText(piece);
    const to = next ? next.from - 1 : piece.to;
    const last = entries.at(-1);
    if (last?.length === length) last.to = to;
    else entries.push({ to, length });
  });
  return entries
    .map(({ to, length }, index) =>
      index === entries.length - 1 ? length : `(max-width: ${to}px) ${length}`,
    )
    .join(', ');
}

/** A piece as the shortest CSS length that is right enough over its range. */
function lengthText({ from, to, a, b }: CurvePiece): string {
  const candidates: string[] = [];
  for (const digits of [0, 1, 2, 3, 4])
    for (const share of new Set([a, 0]))
      for (const places of [0, 1, 2]) {
        const vw = Number((share * 100).toFixed(digits));
        // What the rounding of the share takes at the middle of the range, the rest gives back.
        const middle = (from + to) / 2;
        const rest = Number((a * middle + b - (vw / 100) * middle).toFixed(places));
        for (const px of new Set([rest, Number(b.toFixed(places))])) {
          const off = (width: number) => Math.abs((vw / 100) * width + px - (a * width + b));
          if (Math.max(off(from), off(to)) <= tolerance) candidates.push(cssLength(vw, px));
        }
      }
  return candidates.reduce((best, text) => (text.length < best.length ? text : best));
}

function cssLength(vw: number, px: number): string {
  if (vw === 0) return `${px}px`;
  if (px === 0) return `${vw}vw`;
  return `calc(${vw}vw ${px < 0 ? '-' : '+'} ${Math.abs(px)}px)`;
}
