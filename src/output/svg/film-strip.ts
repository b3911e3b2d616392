import { momentAt, stepsOfFilm } from '../../core/pixels/film.js';
import type { FilmFrame } from '../../core/pixels/film.js';
import type { Size } from '../../core/base/size.js';
import { formatTime } from '../units.js';
import { box, drawing, text } from './shapes.js';

/** What a strip shows. */
export interface FilmStrip {
  readonly title: string;
  readonly subtitle: string;
  /** What it was filmed under. */
  readonly conditions: string;
  readonly frames: readonly FilmFrame[];
  /** Pixels of a frame. */
  readonly size: Size;
  /** Milliseconds up to which it is told. */
  readonly end: number;
}

const width = 1280;
const margin = 24;
const gap = 10;
const head = 90;
const labels = 54;
const most = 12;
/** Frames are drawn no wider and no higher than this. */
const maxFrame: Size = { width: 300, height: 420 };
/** Change of completeness that is marked. */
const seenChange = 0.01;
const ink = 'fill="#1d2733"';
const faint = 'fill="#5b6773"';
const newEdge = 'fill="none" stroke="#b3541e" stroke-width="3"';
const sameEdge = 'fill="none" stroke="#c9d0d8" stroke-width="1"';

/**
 * A load as a strip of frames: what the page showed at even times, and how complete it was. A frame that is nearer to
 * the end than the one before it, or further from it, has a strong edge.
 */
export function filmStripSvg({
  title,
  subtitle,
  conditions,
  frames,
  size,
  end,
}: FilmStrip): string {
  const times = stepsOfFilm(end, most);
  // Wide pages stand in two rows: twelve of them side by side would be too small to see anything.
  const inRow = size.width > size.height ? Math.min(times.length, most / 2) : times.length;
  const across = (width - 2 * margin - (inRow - 1) * gap) / inRow;
  const scale = Math.min(
    Math.min(across, maxFrame.width) / size.width,
    maxFrame.height / size.height,
  );
  const [wide, high] = [size.width * scale, size.height * scale];
  let before: FilmFrame | undefined;
  const columns = times.map((time, index) => {
    const x = margin + (index % inRow) * (wide + gap);
    const y = head + Math.floor(index / inRow) * (high + labels);
    const frame = momentAt(frames, time)!;
    const change = Math.abs(frame.completeness - (before?.completeness ?? -1));
    const edge = change < seenChange ? sameEdge : newEdge;
    before = frame;
    const data = Buffer.from(frame.picture).toString('base64');
    return [
      `<image x="${x}" y="${y}" width="${wide}" height="${high}" preserveAspectRatio="none" href="data:image/jpeg;base64,${data}"/>`,
      box(x, y, wide, high, edge),
      text(x, y + high + 20, formatTime(time), `font-size="13" font-weight="600" ${ink}`),
      text(
        x,
        y + high + 37,
        `${Math.floor(frame.completeness * 100)} %`,
        `font-size="13" ${faint}`,
      ),
    ].join('');
  });
  return drawing(width, Math.ceil(head + Math.ceil(times.length / inRow) * (high + labels)), [
    text(margin, 30, title, `font-size="17" font-weight="600" ${ink}`),
    text(margin, 52, subtitle, `font-size="14" ${ink}`),
    text(margin, 74, conditions, faint),
    ...columns,
  ]);
}
