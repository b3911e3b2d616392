import { useState } from 'preact/hooks';
import type { Report } from './data.js';
import { pictureAt } from './data.js';

/** An image as it is and as it would be, one over the other. */
export function Slider({ report, image }: { readonly report: Report; readonly image: number }) {
  const [at, setAt] = useState(50);
  const number = report.pairs.findIndex((pair) => pair.image === image);
  const pair = report.pairs[number];
  if (!pair) return null;
  const [before, after] = [pictureAt('pairs', number * 2), pictureAt('pairs', number * 2 + 1)];
  return (
    <figure class="slider">
      <div
        class="both"
        style={{ width: `${pair.width}px`, aspectRatio: `${pair.width} / ${pair.height}` }}
      >
        <img src={before} alt="The original, at the size that is needed" />
        <img src={after} alt="The right-sized file" style={{ clipPath: `inset(0 0 0 ${at}%)` }} />
        <span class="line" style={{ left: `${at}%` }} />
      </div>
      <label>
        <span>original</span>
        <input
          type="range"
          min="0"
          max="100"
          value={at}
          aria-label="How much of the original is seen"
          onInput={(event) => setAt(Number(event.currentTarget.value))}
        />
        <span>right-sized</span>
      </label>
      <figcaption class="faint">
        The original, reduced to the size that is needed, and the file that would be enough.
      </figcaption>
    </figure>
  );
}
