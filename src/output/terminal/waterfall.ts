import { phaseNames } from '../../core/load/request.js';
import type { PageRequest, PhaseName } from '../../core/load/request.js';
import { lengthOf } from '../../core/load/request-view.js';
import type { ChosenRequests } from '../../core/load/request-view.js';
import type { Run } from '../../core/load/session.js';
import { shorten } from '../words/plain-text.js';
import { markerLines, problemOf, requestName, typeLetters } from '../words/request.js';
import { count, formatBytes, formatTime } from '../words/units.js';
import { paletteFor } from './style.js';
import type { Palette, Screen } from './style.js';

/** Each phase has a sign of its own, so that the bars can be read without colours. */
const signs: Readonly<Record<PhaseName, string>> = {
  blocked: '·',
  dns: '◦',
  connect: '○',
  tls: '◍',
  send: '─',
  wait: '▒',
  receive: '█',
};

/**
 * A run as a waterfall: one row a request that was chosen, bars cut into phases.
 *
 * @param length milliseconds that the axis is long; left out, as long as the run
 */
export function drawWaterfall(
  run: Run,
  chosen: ChosenRequests,
  screen: Screen,
  length = lengthOf(run.requests, run.markers.load),
): string {
  const palette = paletteFor(screen);
  const { rows: shown, left, others } = chosen;
  const nameWidth = Math.max(16, Math.min(34, Math.floor(screen.width * 0.28)));
  const chartWidth = Math.max(20, screen.width - nameWidth - 24);
  const columnOf = (time: number) =>
    Math.min(chartWidth - 1, Math.floor((time / length) * chartWidth));
  const marks = placeMarks(run, columnOf, chartWidth);
  const rows = shown.map((request) => {
    const cells = barCells(request, length, chartWidth);
    const chart = cells.map((phase, column) => cellText(phase, marks.has(column), palette));
    const problem = problemOf(request);
    const room = nameWidth - (problem === '' ? 0 : problem.length + 1);
    const name = `${problem && `${problem} `}${shorten(requestName(request), room)}`.padEnd(
      nameWidth,
    );
    const status = problem === '' ? name : palette.red(name);
    const bytes = formatBytes(request.transferBytes).padStart(8);
    const end = request.end === null ? '…' : formatTime(request.end);
    return `${typeLetters[request.type]} ${status} ${chart.join('')} ${bytes} ${end.padStart(8)}`;
  });
  const margin = ' '.repeat(nameWidth + 3);
  return [
    margin + markLine(marks, chartWidth),
    ...rows,
    margin + axis(length, chartWidth, palette),
    ...(left.count > 0
      ? [
          palette.dim(
            `${count(left.count, 'more request')} with ${formatBytes(left.bytes)}; --top ${shown.length + left.count} shows all`,
          ),
        ]
      : []),
    ...(others > 0 ? [palette.dim(`${count(others, 'request')} filtered out`)] : []),
    palette.dim(
      `${phaseNames.map((name) => `${signs[name]} ${name}`).join('  ')}   F first, L largest paint, D DOMContentLoaded, E load`,
    ),
    palette.dim(
      'H html, S style, J script, I image, F font, O other; right: bytes on the wire, end',
    ),
  ].join('\n');
}

/** The phase that fills each column of a request's bar, the one that takes most of the column. */
export function barCells(
  request: PageRequest,
  length: number,
  width: number,
): (PhaseName | undefined)[] {
  const cells = Array.from({ length: width }, (): PhaseName | undefined => undefined);
  const share = Array.from({ length: width }, () => 0);
  let at = request.start;
  for (const phase of phaseNames) {
    const end = at + request.phases[phase];
    const from = (at / length) * width;
    const to = (end / length) * width;
    for (let column = Math.floor(from); column < Math.min(width, Math.ceil(to)); column++) {
      const covered = Math.min(to, column + 1) - Math.max(from, column);
      if (covered <= share[column]!) continue;
      share[column] = covered;
      cells[column] = phase;
    }
    at = end;
  }
  return cells;
}

function cellText(phase: PhaseName | undefined, marked: boolean, palette: Palette): string {
  if (phase === undefined) return marked ? palette.dim('│') : ' ';
  const sign = signs[phase];
  switch (phase) {
    case 'blocked':
      return palette.dim(sign);
    case 'receive':
      return palette.cyan(sign);
    case 'wait':
      return palette.yellow(sign);
    default:
      return palette.magenta(sign);
  }
}

/** The markers' letters by column; one that would cover another is set beside it. */
function placeMarks(
  { markers }: Run,
  columnOf: (time: number) => number,
  width: number,
): Map<number, string> {
  const marks = new Map<number, string>();
  for (const [name, letter] of markerLines) {
    const time = markers[name];
    if (time === null) continue;
    let column = columnOf(time);
    while (marks.has(column) && column < width - 1) column++;
    marks.set(column, letter);
  }
  return marks;
}

function markLine(marks: ReadonlyMap<number, string>, width: number): string {
  return Array.from({ length: width }, (_, column) => marks.get(column) ?? ' ').join('');
}

function axis(length: number, width: number, { dim }: Palette): string {
  const ticks = Array.from({ length: 5 }, (_, index) => {
    const text = formatTime((length * index) / 4);
    return { text, at: index === 4 ? width - text.length : Math.floor((width * index) / 4) };
  });
  const end = ticks.at(-1)!.at;
  let line = '';
  for (const { text, at } of ticks) {
    // The last one stands at the end: what would touch it is left out.
    if (at === end || at + text.length < end) line = line.padEnd(at) + text;
  }
  return dim(line);
}
