import { phaseNames } from '../../core/load/request.js';
import type { PageRequest } from '../../core/load/request.js';
import type { Markers } from '../../core/load/markers.js';
import { shorten } from '../words/plain-text.js';
import { markerSigns } from '../words/marker-signs.js';
import { markerLines, phaseColours, requestName, typeLetters } from '../words/request.js';
import { count, formatBytes, formatTime } from '../words/units.js';
import { conditionLines } from './condition-lines.js';
import { box, drawing, line, text, ticks } from './shapes.js';

/** The rows of one load on a time axis. */
export interface RequestChart {
  readonly markers: Markers;
  readonly rows: readonly PageRequest[];
  /** Milliseconds from the left end of the axis to the right one. */
  readonly length: number;
  /** The top of the first row. */
  readonly top: number;
  /** The words beside the row of a request, in a column of their own if this is given. */
  readonly notes?: ReadonlyMap<PageRequest, string>;
}

/** Pixels across of every picture of a waterfall. */
const chartWidth = 1280;
/** Pixels above the first row that the letters of the markers take. */
export const chartHead = 24;
const grey = '#555';
/** Longer pictures than this are no pictures. */
export const maxRows = 2_000;

const rowHeight = 18;
const barHeight = 12;
const left = 330;
const noteWidth = 150;

/** One row a request: type, name, bar cut into phases, bytes and end; the markers as lines through all of them. */
export function requestChart({ markers, rows, length, top, notes }: RequestChart): {
  readonly parts: string[];
  /** The position for the next element. */
  readonly bottom: number;
} {
  const right = chartWidth - 150 - (notes ? noteWidth : 0);
  const x = (time: number) => left + (time / length) * (right - left);
  const floor = top + rows.length * rowHeight;
  const bytesAt = right + 68;
  const endAt = right + 136;
  const heading = (at: number, words: string) =>
    text(at, top - 12, words, `text-anchor="end" fill="${grey}"`);
  const row = (request: PageRequest, at: number): string[] => {
    const middle = at + rowHeight / 2 + 4;
    const failed = request.status >= 400 || request.failure !== null;
    const weight = request.renderBlocking ? 'font-weight="700"' : '';
    const status = request.status >= 300 || request.status === 0 ? ` ${request.status || '–'}` : '';
    const note = notes?.get(request);
    return [
      text(20, middle, typeLetters[request.type], `fill="${grey}" font-weight="600"`),
      text(
        38,
        middle,
        shorten(requestName(request), 42) + status,
        `${weight} fill="${failed ? '#a3341b' : '#1d1f22'}"`,
      ),
      ...bars(request, at, x),
      text(bytesAt, middle, formatBytes(request.transferBytes), 'text-anchor="end"'),
      text(
        endAt,
        middle,
        request.end === null ? 'unfinished' : formatTime(request.end),
        `text-anchor="end" fill="${grey}"`,
      ),
      ...(note === undefined ? [] : [text(endAt + 14, middle, note, '')]),
    ];
  };
  return {
    parts: [
      ...ticks(length, 8).flatMap((time) => [
        line(x(time), top - 6, x(time), floor, 'stroke="#e6e6e6"'),
        text(x(time), floor + 18, formatTime(time), `text-anchor="middle" fill="${grey}"`),
      ]),
      ...rows.flatMap((request, index) => row(request, top + index * rowHeight)),
      ...signsOf(markers, x, top, floor),
      heading(bytesAt, 'bytes'),
      heading(endAt, 'end'),
    ],
    bottom: floor + 28,
  };
}

function bars(request: PageRequest, top: number, x: (time: number) => number): string[] {
  let at = request.start;
  return phaseNames.flatMap((phase) => {
    const from = at;
    at += request.phases[phase];
    const wide = x(at) - x(from);
    if (wide <= 0) return [];
    const lower = phase === 'blocked' ? 3 : 0;
    return [
      box(
        x(from),
        top + (rowHeight - barHeight) / 2 + lower,
        Math.max(0.6, wide),
        barHeight - 2 * lower,
        `fill="${phaseColours[phase]}"`,
      ),
    ];
  });
}

/** Lines with their letters above. */
function signsOf(
  markers: Markers,
  x: (time: number) => number,
  top: number,
  floor: number,
): string[] {
  return markerSigns(markers, x).flatMap(({ letter, at, letterAt }) => [
    line(at, top - 8, at, floor, 'stroke="#a3341b" stroke-dasharray="4 3"'),
    text(letterAt, top - 12, letter, 'text-anchor="middle" fill="#a3341b" font-weight="700"'),
  ]);
}

/** The top of the first chart of a page, below two lines of conditions. */
export const pageTop = 104;

/**
 * A page of charts as an SVG picture: what it is of, the phases with their colours, the charts, what their signs mean.
 *
 * @param bottom where the charts end
 * @param leftOut requests that are not drawn
 */
export function chartPage(
  { title, subtitle }: { readonly title: string; readonly subtitle: string },
  parts: readonly string[],
  bottom: number,
  leftOut: number,
): string {
  return drawing(chartWidth, bottom + 56, [
    text(20, 28, title, 'font-size="16" font-weight="600"'),
    ...conditionLines(subtitle).map((words, at) => text(20, 48 + at * 16, words, `fill="${grey}"`)),
    ...phaseLegend(80),
    ...parts,
    ...chartFootnotes(bottom + 22, leftOut),
  ]);
}

/** The phases with their colours, in a line. */
function phaseLegend(top: number): string[] {
  return phaseNames.flatMap((phase, index) => {
    const at = 20 + index * 92;
    return [
      box(at, top, 14, barHeight, `fill="${phaseColours[phase]}"`),
      text(at + 20, top + 10, phase, `fill="${grey}"`),
    ];
  });
}

/** What the letters and the weight of the type mean, in two lines. */
function chartFootnotes(top: number, leftOut: number): string[] {
  const marks = markerLines.map(([, letter, words]) => `${letter} ${words}`).join(' · ');
  const more = leftOut > 0 ? `; ${count(leftOut, 'more request')} not shown` : '';
  return [
    text(20, top, marks, `fill="${grey}"`),
    text(
      20,
      top + 20,
      `H html, S style, J script, I image, F font, O other; a bold name blocks rendering${more}`,
      `fill="${grey}"`,
    ),
  ];
}
