import { phaseNames } from '../../core/request.js';
import type { PageRequest } from '../../core/request.js';
import type { ChosenRequests } from '../../core/request-view.js';
import { lengthOf } from '../../core/request-view.js';
import type { Markers } from '../../core/markers.js';
import { shorten } from '../plain-text.js';
import { markerLines, phaseColours, requestName, typeLetters } from '../request-words.js';
import { count, formatBytes, formatTime } from '../units.js';
import { box, drawing, line, text, ticks } from './shapes.js';

/** What a picture of a load shows. */
export interface WaterfallPicture {
  readonly title: string;
  /** Conditions, or where it comes from. */
  readonly subtitle: string;
  readonly markers: Markers;
  readonly chosen: ChosenRequests;
}

const width = 1280;
const rowHeight = 18;
const barHeight = 12;
const chart = { left: 330, right: width - 150, top: 112 } as const;
const grey = '#555';
/** Longer pictures than this are no pictures. */
const maxRows = 2_000;

/**
 * A load as an SVG picture: one row a request, its bar cut into phases, the markers as lines, type, size and end
 * beside it.
 */
export function waterfallSvg({ title, subtitle, markers, chosen }: WaterfallPicture): string {
  const rows = chosen.rows.slice(0, maxRows);
  const length = lengthOf(rows, markers.load) * 1.02;
  const x = (time: number) => chart.left + (time / length) * (chart.right - chart.left);
  const floor = chart.top + rows.length * rowHeight;
  const left = chosen.left.count + chosen.rows.length - rows.length;
  const height = floor + 84;
  return drawing(width, height, [
    text(20, 28, title, 'font-size="16" font-weight="600"'),
    text(20, 48, subtitle, `fill="${grey}"`),
    ...legend(),
    ...ticks(length, 8).flatMap((time) => [
      line(x(time), chart.top - 6, x(time), floor, 'stroke="#e6e6e6"'),
      text(x(time), floor + 18, formatTime(time), `text-anchor="middle" fill="${grey}"`),
    ]),
    ...rows.flatMap((request, index) => row(request, chart.top + index * rowHeight, x)),
    ...markerSigns(markers, x, floor),
    text(chart.right + 68, chart.top - 12, 'bytes', `text-anchor="end" fill="${grey}"`),
    text(width - 14, chart.top - 12, 'end', `text-anchor="end" fill="${grey}"`),
    text(
      20,
      height - 34,
      markerLines.map(([, letter, words]) => `${letter} ${words}`).join(' · '),
      `fill="${grey}"`,
    ),
    text(
      20,
      height - 14,
      `H html, S style, J script, I image, F font, O other; a bold name blocks rendering${left > 0 ? `; ${count(left, 'more request')} left out` : ''}`,
      `fill="${grey}"`,
    ),
  ]);
}

function row(request: PageRequest, top: number, x: (time: number) => number): string[] {
  const middle = top + rowHeight / 2 + 4;
  const failed = request.status >= 400 || request.failure !== null;
  const weight = request.renderBlocking ? 'font-weight="700"' : '';
  let at = request.start;
  const bars = phaseNames.flatMap((phase) => {
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
  const status = request.status >= 300 || request.status === 0 ? ` ${request.status || '–'}` : '';
  return [
    text(20, middle, typeLetters[request.type], `fill="${grey}" font-weight="600"`),
    text(
      38,
      middle,
      shorten(requestName(request), 42) + status,
      `${weight} fill="${failed ? '#a3341b' : '#1d1f22'}"`,
    ),
    ...bars,
    text(chart.right + 68, middle, formatBytes(request.transferBytes), 'text-anchor="end"'),
    text(
      width - 14,
      middle,
      request.end === null ? 'not ended' : formatTime(request.end),
      `text-anchor="end" fill="${grey}"`,
    ),
  ];
}

/** Lines with their letters above; letters that would cover one another stand side by side. */
function markerSigns(markers: Markers, x: (time: number) => number, floor: number): string[] {
  let free = 0;
  return markerLines
    .flatMap(([name, letter]) => {
      const time = markers[name];
      return time === null ? [] : [{ letter, at: x(time) }];
    })
    .sort((a, b) => a.at - b.at)
    .flatMap(({ letter, at }) => {
      const place = Math.max(at, free);
      free = place + 12;
      return [
        line(at, chart.top - 8, at, floor, 'stroke="#a3341b" stroke-dasharray="4 3"'),
        text(
          place,
          chart.top - 12,
          letter,
          'text-anchor="middle" fill="#a3341b" font-weight="700"',
        ),
      ];
    });
}

function legend(): string[] {
  return phaseNames.flatMap((phase, index) => {
    const at = 20 + index * 92;
    return [
      box(at, 64, 14, barHeight, `fill="${phaseColours[phase]}"`),
      text(at + 20, 74, phase, `fill="${grey}"`),
    ];
  });
}
