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
  const known = texts.get(pieces);
  if (known !== undefined) return known;
  const text = textOf(pieces);
  texts.set(pieces, text);
  return text;
}

/** A survey has a curve once, and the placements that it is of ask for its text each by itself. */
const texts = new WeakMap<readonly CurvePiece[], string>();

function textOf(pieces: readonly CurvePiece[]): string {
  const entries = entriesOf(pieces);
  return entries
    .map(({ to, length }, index) =>
      index === entries.length - 1 ? length : `(max-width: ${to}px) ${length}`,
    )
    .join(', ');
}

/** Screens of at least this density, and no wider, are phones that have more pixels than anybody sees. */
const dense = { density: 2.5, width: 600, usual: 3 };

/**
 * The same with entries ahead that have dense phones choose as if they had fewer pixels: the only way to spare them bytes
 * where the site offers larger candidates anyway.
 *
 * @param enough device pixels to one CSS pixel that dense screens are served
 */
export function cappedSizesText(pieces: readonly CurvePiece[], enough: number): string {
  const factor = enough / dense.usual;
  if (factor >= 1) return sizesText(pieces);
  const scaled = pieces
    .filter(({ from }) => from <= dense.width)
    .map(({ from, to, a, b }) => ({ from, to, a: a * factor, b: b * factor }));
  const ahead = entriesOf(scaled).map(
    ({ to, length }) =>
      `(min-resolution: ${dense.density}dppx) and (max-width: ${Math.min(to, dense.width)}px) ${length}`,
  );
  return [...ahead, sizesText(pieces)].join(', ');
}

function entriesOf(pieces: readonly CurvePiece[]): { to: number; length: string }[] {
  const entries: { to: number; length: string }[] = [];
  pieces.forEach((piece, index) => {
    const next = pieces[index + 1];
    const length = lengthText(piece);
    const to = next ? next.from - 1 : piece.to;
    const last = entries.at(-1);
    if (last?.length === length) last.to = to;
    else entries.push({ to, length });
  });
  return entries;
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
