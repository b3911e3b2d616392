import { momentAt } from '../../core/pixels/film.js';
import type { Film } from '../../core/pixels/film.js';
import { filmEnd, filmWords } from '../words/film.js';
import { formatTime } from '../words/units.js';
import { conditionLines } from './condition-lines.js';
import { box, drawing, round, text } from './shapes.js';

/** What a drawing of two films shows. */
export interface FilmPairPicture {
  readonly title: string;
  readonly conditions: string;
  readonly sides: readonly { readonly label: string; readonly film: Film }[];
}

const width = 1280;
const margin = 24;
const gap = 12;
/** Moments that are shown of both loads. */
const moments = 8;
/** Frames are drawn no higher than this. */
const maxHeight = 280;
const ink = 'fill="#1d2733"';
const faint = 'fill="#5b6773"';

/** Two loads, one above the other: what each showed at the same moments. */
export function filmPairSvg({ title, conditions, sides }: FilmPairPicture): string {
  const end = Math.max(...sides.map(({ film }) => filmEnd(film)));
  const times = Array.from({ length: moments }, (_, at) => (end * (at + 1)) / moments);
  const across = (width - 2 * margin - (moments - 1) * gap) / moments;
  const told = conditionLines(conditions);
  let top = 62 + told.length * 17 + 20;
  const parts: string[] = [];
  for (const { label, film } of sides) {
    const scale = Math.min(across / film.size.width, maxHeight / film.size.height);
    const size = { width: film.size.width * scale, height: film.size.height * scale };
    parts.push(
      text(margin, top, `${label}: ${filmWords(film)}`, `font-size="14" font-weight="600" ${ink}`),
    );
    const rowTop = top + 14;
    for (const [at, time] of times.entries()) {
      const frame = momentAt(film.frames, time);
      const left = margin + at * (across + gap) + (across - size.width) / 2;
      const whole = frame ? `${Math.round(frame.completeness * 100)} %` : 'nothing yet';
      if (frame) {
        const data = Buffer.from(frame.picture).toString('base64');
        parts.push(
          `<image x="${round(left)}" y="${round(rowTop)}" width="${round(size.width)}" height="${round(size.height)}" preserveAspectRatio="none" href="data:image/jpeg;base64,${data}"/>`,
        );
      }
      parts.push(
        box(left, rowTop, size.width, size.height, 'fill="none" stroke="#c2cad2"'),
        text(
          left,
          rowTop + size.height + 18,
          formatTime(time),
          `font-size="13" font-weight="600" ${ink}`,
        ),
        text(left, rowTop + size.height + 35, whole, faint),
      );
    }
    top = rowTop + size.height + 72;
  }
  return drawing(width, Math.ceil(top - 20), [
    text(margin, 30, title, `font-size="17" font-weight="600" ${ink}`),
    text(margin, 50, 'what visitors see at the same moments', faint),
    ...told.map((words, index) => text(margin, 72 + index * 17, words, faint)),
    ...parts,
  ]);
}
