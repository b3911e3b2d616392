import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { parseSizes } from '../../src/core/slots/source-sizes.js';
import type { ReportRow } from './data.js';

type Curve = NonNullable<NonNullable<ReportRow['family']>['slotCurve']>;

const size = { width: 420, height: 160, left: 44, bottom: 26, top: 8, right: 8 };

const windows = { from: 320, to: 2560, step: 20 };

interface SlotCurveProps {
  readonly curve: Curve;
  /** The text of `sizes` that its elements have now; `null` for none. */
  readonly declared: string | null;
}

/** The width of a slot by the width of the window, and what the markup says of it. */
export function SlotCurve({ curve, declared }: SlotCurveProps) {
  const points = curve.flatMap(({ from, to, a, b }) =>
    [from, to].map((width): [number, number] => [width, a * width + b]),
  );
  const said = declaredPoints(declared);
  const most = Math.max(1, ...[...points, ...said].map(([, slot]) => slot));
  const x = scaleLinear([320, 2560], [size.left, size.width - size.right]);
  const y = scaleLinear([0, most], [size.height - size.bottom, size.top]).nice(4);
  const path = line<[number, number]>(
    ([width]) => x(width),
    ([, slot]) => y(slot),
  );
  return (
    <figure>
      <svg
        viewBox={`0 0 ${size.width} ${size.height}`}
        class="chart"
        role="img"
        aria-label="Width of the slot by width of the window"
      >
        {y.ticks(4).map((tick) => (
          <g key={tick}>
            <line
              class="grid"
              x1={size.left}
              x2={size.width - size.right}
              y1={y(tick)}
              y2={y(tick)}
            />
            <text x={size.left - 6} y={y(tick) + 4} text-anchor="end">
              {tick}
            </text>
          </g>
        ))}
        {x.ticks(5).map((tick) => (
          <text key={tick} x={x(tick)} y={size.height - 8} text-anchor="middle">
            {tick}
          </text>
        ))}
        {said.length > 0 && <path d={path(said) ?? ''} class="declared" />}
        <path d={path(points) ?? ''} class="curve" />
      </svg>
      <figcaption class="faint">Width of the slot by width of the window, in CSS pixels</figcaption>
    </figure>
  );
}

/** What `sizes` says at each width of the window; nothing where it cannot be read. */
function declaredPoints(text: string | null): [number, number][] {
  const size = text === null ? undefined : parseSizes(text);
  if (!size) return [];
  const count = Math.floor((windows.to - windows.from) / windows.step) + 1;
  return Array.from({ length: count }, (_, at) => {
    const width = windows.from + at * windows.step;
    return [width, size(width)];
  });
}
