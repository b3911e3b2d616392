import { scenesOf, momentAt } from '../../core/pixels/film.js';
import type { Film, FilmArrival, FilmScene } from '../../core/pixels/film.js';
import { filmEnd, filmWords } from '../words/film.js';
import { shorten } from '../words/plain-text.js';
import { formatTime } from '../words/units.js';
import { conditionLines } from './condition-lines.js';
import { box, drawing, line, round, text, ticks } from './shapes.js';

/** What a drawing of a film shows. */
export interface FilmPicture {
  readonly title: string;
  /** The conditions of the film. */
  readonly conditions: string;
  readonly film: Film;
}

const width = 1280;
const margin = 56;
const curveTop = 122;
const curveHeight = 130;
const framesTop = curveTop + curveHeight + 74;
const gap = 18;
/** Frames are drawn no wider and no higher than this. */
const maxFrame = { width: 250, height: 380 };
/** More frames than this would be too small to see anything. */
const mostFrames = 7;
/** Lines in which what arrived is named below a frame. */
const mostNamed = 3;
const ink = 'fill="#1d2733"';
const faint = 'fill="#5b6773"';
const grid = 'stroke="#e4e8ec"';
const curve = '#2f7d4f';

/**
 * A load as a curve of how complete the page looked over time, with the frames at which that changed: each hangs from
 * its moment on the curve, and names what had arrived by then.
 */
export function filmSvg({ title, conditions, film }: FilmPicture): string {
  const end = filmEnd(film) * 1.04;
  const floor = curveTop + curveHeight;
  const x = (time: number) => margin + (Math.min(time, end) / end) * (width - 2 * margin);
  const y = (completeness: number) => floor - completeness * curveHeight;
  const scenes = scenesOf(film, mostFrames);
  const across = (width - 2 * margin - (scenes.length - 1) * gap) / Math.max(1, scenes.length);
  const scale = Math.min(
    Math.min(across, maxFrame.width) / film.size.width,
    maxFrame.height / film.size.height,
  );
  const size = { width: film.size.width * scale, height: film.size.height * scale };
  const lefts = spread(
    scenes.map(({ frame }) => x(frame.at) - size.width / 2),
    size.width + gap,
    margin,
    width - margin - size.width,
  );
  const parts = [
    ...ticks(end, 8).flatMap((time) => [
      line(x(time), curveTop, x(time), floor, grid),
      text(x(time), floor + 18, formatTime(time), `text-anchor="middle" ${faint}`),
    ]),
    ...[0, 0.5, 1].flatMap((share) => [
      line(margin, y(share), width - margin, y(share), grid),
      text(margin - 8, y(share) + 4, `${share * 100} %`, `text-anchor="end" ${faint}`),
    ]),
    curveShape(film, end, x, y),
    ...scenes.flatMap((scene, index) => sceneParts(scene, lefts[index]!, size, x, y)),
  ];
  const bottom = framesTop + size.height + 24 + 17 * (mostNamed + 1);
  return drawing(width, Math.ceil(bottom), [
    text(24, 30, title, `font-size="17" font-weight="600" ${ink}`),
    text(24, 52, filmWords(film), `font-size="14" ${ink}`),
    ...conditionLines(conditions).map((words, index) => text(24, 74 + index * 17, words, faint)),
    text(margin, curveTop - 10, 'how complete the page looks', faint),
    ...parts,
  ]);
}

/** Completeness over time: it changes at frames only. */
function curveShape(
  { frames }: Film,
  end: number,
  x: (time: number) => number,
  y: (completeness: number) => number,
): string {
  const points = frames
    .filter(({ at }) => at <= end)
    .flatMap(({ at, completeness }, index) => {
      const before = frames[index - 1]?.completeness ?? completeness;
      return [`${round(x(at))},${round(y(before))}`, `${round(x(at))},${round(y(completeness))}`];
    });
  const last = momentAt(frames, end)?.completeness ?? 1;
  points.push(`${round(x(end))},${round(y(last))}`);
  const area = [`${round(x(0))},${round(y(0))}`, ...points, `${round(x(end))},${round(y(0))}`];
  return [
    `<polygon points="${area.join(' ')}" fill="${curve}" fill-opacity="0.14"/>`,
    `<polyline points="${points.join(' ')}" fill="none" stroke="${curve}" stroke-width="2"/>`,
  ].join('');
}

/** A frame below the axis, tied to its moment on the curve, with the names of what had arrived. */
function sceneParts(
  { frame, arrived }: FilmScene,
  left: number,
  size: { readonly width: number; readonly height: number },
  x: (time: number) => number,
  y: (completeness: number) => number,
): string[] {
  const moment = x(frame.at);
  const middle = left + size.width / 2;
  const floor = curveTop + curveHeight;
  const data = Buffer.from(frame.picture).toString('base64');
  const room = Math.floor(size.width / 6.4);
  const below = framesTop + size.height;
  return [
    `<polyline points="${[
      `${round(moment)},${round(floor + 26)}`,
      `${round(moment)},${round(floor + 34)}`,
      `${round(middle)},${round(framesTop - 10)}`,
      `${round(middle)},${round(framesTop)}`,
    ].join(' ')}" fill="none" stroke="#9aa4ae"/>`,
    `<circle cx="${round(moment)}" cy="${round(y(frame.completeness))}" r="4" fill="${curve}"/>`,
    `<image x="${round(left)}" y="${framesTop}" width="${round(size.width)}" height="${round(size.height)}" preserveAspectRatio="none" href="data:image/jpeg;base64,${data}"/>`,
    box(left, framesTop, size.width, size.height, 'fill="none" stroke="#c2cad2"'),
    text(left, below + 20, formatTime(frame.at), `font-size="13" font-weight="600" ${ink}`),
    ...namesOf(arrived, room).map((words, index) =>
      text(left, below + 37 + index * 16, words, faint),
    ),
  ];
}

/** The names of what arrived: the largest first, as many as there is room for. */
function namesOf(arrived: readonly FilmArrival[], room: number): string[] {
  if (arrived.length === 0) return [];
  const named = arrived.toSorted((a, b) => b.bytes - a.bytes).map(({ url }) => nameOf(url));
  const shown = named.slice(0, mostNamed).map((name) => shorten(`+ ${name}`, Math.max(8, room)));
  const left = named.length - shown.length;
  return left > 0 ? [...shown, `+ ${left} more`] : shown;
}

function nameOf(url: string): string {
  if (!URL.canParse(url)) return url;
  const { host, pathname } = new URL(url);
  return pathname.split('/').filter(Boolean).at(-1) ?? host;
}

/** Moves items to the right where they would overlap, and back to the left where they would leave the picture. */
function spread(wanted: readonly number[], step: number, least: number, most: number): number[] {
  const places = [...wanted];
  for (let at = 0; at < places.length; at++)
    places[at] = Math.max(places[at]!, at === 0 ? least : places[at - 1]! + step);
  for (let at = places.length - 1; at >= 0; at--)
    places[at] = Math.min(places[at]!, at === places.length - 1 ? most : places[at + 1]! - step);
  return places;
}
