import type { LaidOutImage } from '../../core/refit/markup/markup-try.js';
import type { Proof } from '../../core/refit/markup/proof.js';
import { plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { count } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** What came of markup: one row for each view, and what does not hold in words. */
export function drawProof({ page, selector, views, absent }: Proof, screen: Screen): string {
  const { bold, dim, green, red } = paletteFor(screen);
  const origin = new URL(page).origin;
  const address = ({ url }: LaidOutImage) =>
    shorten(withoutOrigin(url, origin) || '–', Math.max(24, (screen.width - 50) / 2));
  const rows = views.map(({ view, problem, before, after }) => [
    view.name,
    problem === null ? green('holds') : red('does not hold'),
    sizeWords(after),
    `${address(before)}, ${before.pixels} px`,
    `${address(after)}, ${after.pixels} px`,
  ]);
  const failed = views.filter(({ problem }) => problem !== null);
  const verdict =
    failed.length === 0
      ? `Holds in ${count(views.length, 'view')}: its box and everything around it stay where they were.`
      : `Does not hold in ${failed.length} of ${count(views.length, 'view')}.`;
  return [
    `${bold(plainText(selector))} on ${plainText(page)}`,
    '',
    table(
      screen,
      [
        ...[
          { title: 'view' },
          { title: 'result', wraps: true, least: 20 },
          { title: 'box', align: 'right' as const },
        ],
        ...[{ title: 'file before' }, { title: 'file after' }],
      ],
      rows,
    ),
    '',
    ...failed.map(({ view, problem }) => `${red('!')} in ${view.name}, ${plainText(problem!)}`),
    ...absent.map(({ name }) => dim(`The page has no such element in ${name}.`)),
    verdict,
  ].join('\n');
}

function sizeWords({ box: { width, height } }: LaidOutImage): string {
  return `${Math.round(width)}×${Math.round(height)}`;
}
