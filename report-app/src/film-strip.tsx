import { scaleLinear } from 'd3-scale';
import type { Load } from './data.js';
import { pictureAt } from './data.js';
import { formatTime } from './numbers.js';
import type { Span } from './waterfall.js';

const names = 260;
const width = 1160;
const height = 130;

/** What visitors saw, on the time axis of the waterfall above it. */
export function FilmStrip({
  load: { film },
  first,
  span,
}: {
  readonly load: Load;
  readonly first: number;
  readonly span: Span;
}) {
  if (!film) return null;
  const x = scaleLinear([span.from, span.to], [names, width]);
  const frameWidth = 84;
  let free = -Infinity;
  const shown = film.frames
    .map((frame, at) => ({ ...frame, at: frame.at, number: first + at }))
    .filter(({ at }) => at >= span.from && at <= span.to)
    .filter(({ at }) => {
      const left = Math.min(x(at), width - frameWidth);
      if (left < free) return false;
      free = left + frameWidth + 4;
      return true;
    });
  return (
    <figure>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        class="chart"
        role="img"
        aria-label={`What visitors saw, in ${shown.length} pictures`}
      >
        <text x="4" y="20">
          What visitors saw
        </text>
        {shown.map(({ at, completeness, number }) => {
          const picture = pictureAt('frames', number);
          const left = Math.min(x(at), width - frameWidth);
          return (
            <g key={number}>
              <line class="grid" x1={x(at)} x2={x(at)} y1="0" y2="8" />
              {picture && (
                <image
                  href={picture}
                  x={left}
                  y="8"
                  width={frameWidth}
                  height={height - 28}
                  preserveAspectRatio="xMidYMin slice"
                />
              )}
              <rect x={left} y="8" width={frameWidth} height={height - 28} class="frame-edge" />
              <text x={left} y={height - 6}>
                {formatTime(at)}, {Math.round(completeness * 100)} %
              </text>
            </g>
          );
        })}
      </svg>
      <figcaption class="faint">
        Each picture at the moment when it changed, with how complete it was.
      </figcaption>
    </figure>
  );
}
