import type { Change, SessionComparison } from '../../core/comparison.js';
import { describeConditions } from '../../core/conditions.js';
import { markerNames, markerTitles } from '../../core/markers.js';
import { requestTypes } from '../../core/request.js';
import type { Session } from '../../core/session.js';
import { plainText } from '../plain-text.js';
import { count, formatBytes } from '../units.js';
import { formatMarker } from './clock.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

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
  const { bold, dim, yellow } = paletteFor(screen);
  const differing = comparison.differingConditions;
  const conditions = Object.entries(describeConditions(before.conditions));
  const pages = before.page === after.page ? before.page : `${before.page} and ${after.page}`;
  const markers = markerNames.flatMap((name) => {
    const row = rowOf(markerTitles[name], comparison.markers[name], (value) =>
      formatMarker(name, value),
    );
    return row ? [row] : [];
  });
  const bytes = requestTypes.flatMap((type) => {
    const change = comparison.bytesByType[type];
    if (!change.before?.max && !change.after?.max) return [];
    return [rowOf(`bytes: ${type}`, change, formatBytes) ?? []];
  });
  return [
    `${bold(plainText(before.label))} (${count(before.runs.length, 'load')}) and ${bold(plainText(after.label))} (${count(after.runs.length, 'load')}): ${plainText(pages)}`,
    ...(differing.length === 0
      ? [
          dim(
            `same conditions: ${conditions.map(([name, words]) => `${name} ${words}`).join(' · ')}`,
          ),
        ]
      : differing.map((each) =>
          yellow(`conditions differ: ${each.condition} was ${each.before}, is ${each.after}`),
        )),
    '',
    table(
      screen,
      [
        { title: 'median of' },
        ...['before', 'after', 'change', 'per cent'].map((title) => ({
          title,
          align: 'right' as const,
        })),
      ],
      [
        ...markers,
        rowOf('requests', comparison.requestCount, String) ?? [],
        rowOf('bytes', comparison.bytes, formatBytes) ?? [],
        ...bytes,
      ],
    ),
  ].join('\n');
}

function rowOf(
  title: string,
  { before, after, difference, percent }: Change,
  format: (value: number) => string,
): string[] | undefined {
  if (!before && !after) return undefined;
  return [
    title,
    before ? format(before.median) : '–',
    after ? format(after.median) : '–',
    difference === null ? '–' : signed(difference, format),
    percent === null ? '–' : signed(percent, (value) => `${value.toFixed(1)} %`),
  ];
}

/** A change with its sign; nothing at all is `±0`. */
function signed(value: number, format: (value: number) => string): string {
  if (value === 0) return '±0';
  return `${value > 0 ? '+' : '−'}${format(Math.abs(value))}`;
}
