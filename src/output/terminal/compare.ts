import type { Change, SessionComparison } from '../../core/comparison.js';
import { describeConditions } from '../../core/conditions.js';
import { markerNames, markerTitles } from '../../core/markers.js';
import { requestTypes } from '../../core/request.js';
import type { Session } from '../../core/session.js';
import { plainText } from '../plain-text.js';
import { count, formatBytes } from '../units.js';
import { formatMarker } from './clock.js';
import { joined, paletteFor, table } from './style.js';
import type { Palette, Screen } from './style.js';

export interface CompareSheet {
  readonly before: Session;
  readonly after: Session;
  readonly comparison: SessionComparison;
}

/** Two sessions side by side: each marker, the bytes and the requests. */
export function drawComparison(
  { before, after, comparison }: CompareSheet,
  screen: Screen,
): string {
  const palette = paletteFor(screen);
  const { bold, dim, yellow } = palette;
  const differing = comparison.differingConditions;
  const conditions = Object.entries(describeConditions(before.conditions));
  const pages = before.page === after.page ? before.page : `${before.page} and ${after.page}`;
  const markers = markerNames.flatMap((name) => {
    const row = rowOf(
      markerTitles[name],
      comparison.markers[name],
      (value) => formatMarker(name, value),
      palette,
    );
    return row ? [row] : [];
  });
  const bytes = requestTypes.flatMap((type) => {
    const change = comparison.bytesByType[type];
    if (!change.before?.max && !change.after?.max) return [];
    return [rowOf(`bytes: ${type}`, change, formatBytes, palette) ?? []];
  });
  return [
    `${bold(plainText(before.label))} (${count(before.runs.length, 'load')}) and ${bold(plainText(after.label))} (${count(after.runs.length, 'load')}): ${plainText(pages)}`,
    differing.length === 0
      ? dim(
          joined(
            ['same conditions', ...conditions.map(([name, words]) => `${name} ${words}`)],
            screen,
          ),
        )
      : differing
          .map((each) =>
            yellow(`conditions differ: ${each.condition} was ${each.before}, is ${each.after}`),
          )
          .join('\n'),
    '',
    table(
      screen,
      [
        { title: 'median of' },
        ...['before', 'after', 'change', 'per cent'].map((title) => ({
          title,
          align: 'right' as const,
        })),
        { title: 'runs' },
      ],
      [
        ...markers,
        rowOf('requests', comparison.requestCount, String, palette) ?? [],
        rowOf('bytes', comparison.bytes, formatBytes, palette) ?? [],
        ...bytes,
      ],
    ),
    '',
    dim(
      'apart: every run of one side differs from every run of the other; overlap: it may be noise',
    ),
  ].join('\n');
}

function rowOf(
  title: string,
  { before, after, difference, percent, overlap }: Change,
  format: (value: number) => string,
  { green, red, dim }: Palette,
): string[] | undefined {
  if (!before && !after) return undefined;
  const change = difference === null ? '–' : signed(difference, format);
  const none = change === '±0' || change === '–';
  const tint = none || overlap ? dim : difference! < 0 ? green : red;
  return [
    title,
    before ? format(before.median) : '–',
    after ? format(after.median) : '–',
    tint(change),
    tint(none || percent === null ? '–' : signed(percent, (value) => `${value.toFixed(1)} %`)),
    none ? '' : dim(overlap ? 'overlap' : 'apart'),
  ];
}

/** A change with its sign; what is written as nothing is `±0`. */
function signed(value: number, format: (value: number) => string): string {
  const size = format(Math.abs(value));
  if (size === format(0)) return '±0';
  return `${value > 0 ? '+' : '−'}${size}`;
}
