import { momentAt } from '../../core/pixels/film.js';
import type { Film } from '../../core/pixels/film.js';
import { filmEnd, filmWords } from '../words/film.js';
import { formatTime } from '../words/units.js';
import { paletteFor } from './style.js';
import type { Screen } from './style.js';

const levels = ['▁', '▂', '▃', '▄', '▅', '▆', '▇', '█'];
const columns = 48;

/** How complete the page looked over time, in one row, and a summary. */
export function drawFilm(film: Film, screen: Screen): string[] {
  const { bold, dim, cyan } = paletteFor(screen);
  const end = filmEnd(film);
  const row = Array.from({ length: columns }, (_, at) => {
    const { completeness } = momentAt(film.frames, (end * at) / (columns - 1))!;
    return completeness === 0 ? ' ' : levels[Math.round(completeness * (levels.length - 1))]!;
  }).join('');
  return [
    `${bold('What visitors see')} ${dim('(one extra load, filmed)')}`,
    `  0 ms ▕${cyan(row)}▏ ${formatTime(end)}   ${filmWords(film)}`,
  ];
}
