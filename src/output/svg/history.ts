import type { Series, SeriesPoint } from '../../core/history/series.js';
import type { HistoryView } from '../views/history.js';
import { seriesTitle, seriesValue } from '../words/history.js';
import { shorten } from '../words/plain-text.js';
import { drawing, line, round, text, ticks } from './shapes.js';

const panel = { width: 600, height: 220 };
const columns = 2;
const top = 60;
const plot = { left: 74, right: 28, top: 46, bottom: 40 };

const blue = '#1b6e8c';
const rust = '#b3541e';
const grey = '#555';

/** The most panels of one picture. */
const mostPanels = 24;
/** Labels nearer to one another than this are left out. */
const labelRoom = 62;

/** The numbers of a site over time as an SVG picture: a panel each, with visitors beside the loads of the same page. */
export function historySvg({ hosts, series }: HistoryView): string {
  const lead = series.filter((one) => one.source !== 'field' || !partnerOf(one, series));
  const panels = lead.slice(0, mostPanels);
  const rows = Math.ceil(panels.length / columns);
  const times = series.flatMap(({ points }) => points.map(({ at }) => Date.parse(at)));
  const span: Span = { from: Math.min(...times), to: Math.max(...times) };
  const left = lead.length - panels.length;
  return drawing(panel.width * columns, top + rows * panel.height + 12, [
    text(20, 28, `${hosts.join(', ')} over time`, 'font-size="17" font-weight="600"'),
    text(
      20,
      47,
      `lines go through medians; bars are the range of the runs; dashed lines are steps that are more than noise${left > 0 ? `; ${left} more numbers are not drawn` : ''}`,
      `fill="${grey}"`,
    ),
    ...panels.flatMap((one, at) => {
      const visitors = series.find((other) => other.source === 'field' && partnerOf(other, [one]));
      const x = (at % columns) * panel.width;
      const y = top + Math.floor(at / columns) * panel.height;
      return [`<g transform="translate(${x} ${y})">`, ...panelParts(one, visitors, span), '</g>'];
    }),
  ]);
}

interface Span {
  /** Milliseconds. */
  readonly from: number;
  readonly to: number;
}

/** The series of loads that measurements of visitors are drawn beside. */
function partnerOf(visitors: Series, series: readonly Series[]): Series | undefined {
  const key = visitors.key.replace(/^field/, 'clock');
  return series.find(
    (one) => one.source === 'clock' && one.key === key && one.page === visitors.page,
  );
}

function panelParts(series: Series, visitors: Series | undefined, { from, to }: Span): string[] {
  const all = [...series.points, ...(visitors?.points ?? [])];
  const most = Math.max(...all.map(({ value, high }) => Math.max(value, high ?? 0))) * 1.12 || 1;
  const [left, right] = [plot.left, panel.width - plot.right];
  const floor = panel.height - plot.bottom;
  // Of a single moment, which has no length.
  const x = ({ at }: Pick<SeriesPoint, 'at'>) =>
    to > from
      ? left + 14 + ((Date.parse(at) - from) / (to - from)) * (right - left - 28)
      : (left + right) / 2;
  const y = (value: number) => floor - (value / most) * (floor - plot.top);
  const last = series.points.at(-1)!;
  return [
    text(left, 20, shorten(seriesTitle(series), 72), 'font-weight="600"'),
    text(
      right,
      20,
      seriesValue(last.value, series.unit),
      `text-anchor="end" font-weight="600" fill="${blue}"`,
    ),
    ...(visitors
      ? [
          text(
            left,
            37,
            'blue: clock, median · rust: visitors, 75th percentile',
            `fill="${grey}" font-size="11"`,
          ),
        ]
      : []),
    ...ticks(most, 4).flatMap((step) => [
      line(left, y(step), right, y(step), 'stroke="#e3e3e3"'),
      text(
        left - 6,
        y(step) + 4,
        seriesValue(step, series.unit),
        `text-anchor="end" fill="${grey}" font-size="11"`,
      ),
    ]),
    line(left, floor, right, floor, `stroke="${grey}"`),
    ...series.steps.map(({ point }) =>
      line(x(point), plot.top, x(point), floor, `stroke="${rust}" stroke-dasharray="4 3"`),
    ),
    ...curve(visitors?.points ?? [], x, y, rust),
    ...curve(series.points, x, y, blue),
    ...labels(series.points, x, isSameDay(from, to)).map(({ at, words, day }) =>
      [
        text(at, floor + 16, words, `text-anchor="middle" font-size="11"`),
        text(at, floor + 30, day, `text-anchor="middle" font-size="10" fill="${grey}"`),
      ].join(''),
    ),
  ];
}

function curve(
  points: readonly SeriesPoint[],
  x: (point: SeriesPoint) => number,
  y: (value: number) => number,
  colour: string,
): string[] {
  const path = points.map((point) => `${round(x(point))},${round(y(point.value))}`).join(' ');
  return [
    ...points.flatMap((point) =>
      point.low === null || point.high === null
        ? []
        : [
            line(
              x(point),
              y(point.low),
              x(point),
              y(point.high),
              `stroke="${colour}" stroke-opacity="0.35" stroke-width="6"`,
            ),
          ],
    ),
    `<polyline points="${path}" fill="none" stroke="${colour}" stroke-width="2"/>`,
    ...points.map(
      (point) =>
        `<circle cx="${round(x(point))}" cy="${round(y(point.value))}" r="3.5" fill="${colour}"/>`,
    ),
  ];
}

function isSameDay(from: number, to: number): boolean {
  const day = (at: number) => new Date(at).toISOString().slice(0, 10);
  return day(from) === day(to);
}

/** The names of measurements as far as there is room, the newest first. */
function labels(
  points: readonly SeriesPoint[],
  x: (point: SeriesPoint) => number,
  isOneDay: boolean,
) {
  const shown: { at: number; words: string; day: string }[] = [];
  for (const point of points.toReversed()) {
    const at = x(point);
    if (shown.some((one) => Math.abs(one.at - at) < labelRoom)) continue;
    shown.push({
      at,
      words: shorten(point.label, 16),
      day: isOneDay ? `${point.at.slice(11, 16)} UTC` : point.at.slice(0, 10),
    });
  }
  return shown;
}
