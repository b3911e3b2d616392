import { slotWidthAt } from '../../core/slots/slot-curve.js';
import type { CurvePiece } from '../../core/slots/slot-curve.js';
import type { View } from '../../core/visitors/view.js';
import { drawing, line, round, text, ticks } from './shapes.js';

/** What a picture of a slot curve shows. */
export interface SlotPicture {
  readonly title: string;
  readonly pieces: readonly CurvePiece[];
  readonly views: readonly View[];
  /** Device pixels to a CSS pixel that are allowed for. */
  readonly density: number;
  /** Pixels across of the file; `null` for a vector. */
  readonly intrinsic: number | null;
}

const size = { width: 860, height: 420 };
const left = 70;
const right = size.width - 20;
const top = 64;
const floor = size.height - 64;

const blue = '#1b6e8c';
const purple = '#6b4fa0';
const rust = '#b3541e';
const grey = '#555';

/** The line of a file far larger than needed would flatten the curve: it is given in words. */
const farAbove = 3;

/**
 * A slot curve as an SVG picture: the slot in CSS pixels, the pixels that are needed at each view's density, and what
 * the file has.
 */
export function slotCurveSvg({ title, pieces, views, density, intrinsic }: SlotPicture): string {
  const [from, to] = [pieces[0]!.from, pieces.at(-1)!.to];
  const needs = views.flatMap((view) => {
    const slot = slotWidthAt(pieces, view.width);
    return slot === null ? [] : [{ view, slot, need: slot * Math.min(view.density, density) }];
  });
  const ends = pieces.flatMap((piece) => [heightOf(piece, piece.from), heightOf(piece, piece.to)]);
  const highest = Math.max(1, ...ends, ...needs.map(({ need }) => need));
  const drawn = intrinsic !== null && intrinsic <= highest * farAbove ? intrinsic : null;
  const most = Math.max(highest, drawn ?? 0) * 1.08;
  const x = (viewport: number) =>
    left + ((viewport - from) / Math.max(1, to - from)) * (right - left);
  const y = (pixels: number) => floor - (pixels / most) * (floor - top);
  const has = intrinsic === null ? '' : `; the file has ${intrinsic} px`;
  return drawing(size.width, size.height, [
    text(left, 24, title, 'font-size="15" font-weight="600"'),
    text(
      left,
      43,
      `width of the slot (line) and pixels needed in each view (dots) by width of the window${has}`,
      `fill="${grey}"`,
    ),
    ...ticks(most).flatMap((step) => [
      line(left, y(step), right, y(step), 'stroke="#e3e3e3"'),
      text(left - 8, y(step) + 4, `${step} px`, `text-anchor="end" fill="${grey}"`),
    ]),
    line(left, floor, right, floor, `stroke="${grey}"`),
    text(left, floor + 20, String(from), `text-anchor="end" fill="${grey}"`),
    text(right, floor + 20, String(to), `text-anchor="end" fill="${grey}"`),
    ...(drawn === null
      ? []
      : [line(left, y(drawn), right, y(drawn), `stroke="${rust}" stroke-dasharray="5 4"`)]),
    ...pieces.map((piece) =>
      line(
        x(piece.from),
        y(heightOf(piece, piece.from)),
        x(piece.to),
        y(heightOf(piece, piece.to)),
        `stroke="${blue}" stroke-width="2.5"`,
      ),
    ),
    ...needs.flatMap(({ view, slot, need }) => {
      const at = x(view.width);
      return [
        line(at, y(slot), at, y(need), `stroke="${purple}" stroke-dasharray="2 3"`),
        `<circle cx="${round(at)}" cy="${round(y(need))}" r="5" fill="${purple}"/>`,
        text(at, y(need) - 10, `${Math.round(need)}`, `text-anchor="middle" fill="${purple}"`),
        line(at, floor, at, floor + 6, `stroke="${grey}"`),
        text(at, floor + 20, String(view.width), `text-anchor="middle" fill="${grey}"`),
        text(at, floor + 36, view.name, 'text-anchor="middle" font-weight="600"'),
      ];
    }),
  ]);
}

function heightOf({ a, b }: CurvePiece, viewport: number): number {
  return a * viewport + b;
}
