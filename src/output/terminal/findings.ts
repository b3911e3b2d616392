import type { FindingsView } from '../views/findings.js';
import { findingCells } from '../words/findings.js';
import { quoted } from '../words/work-item.js';
import { mostName, plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { originOf } from '../words/rank.js';
import { count } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** The findings of a survey by kind, those that cost the most first. */
export function drawFindings(
  { rows, result, narrowed, isNamed, muted, top }: FindingsView,
  screen: Screen,
): string {
  const { bold, dim } = paletteFor(screen);
  const { survey, pages } = result;
  const shown = rows.slice(0, top);
  const left = rows.length - shown.length;
  const title = `${bold(plainText(survey.label))}: ${count(rows.length, 'kind')} of findings on ${count(pages.length, 'page')}`;
  if (rows.length === 0) return title;
  return [
    narrowed ? `${title}, only ${plainText(narrowed)}` : title,
    '',
    table(
      screen,
      [
        { title: 'finding' },
        { title: 'what', wraps: true, least: 34 },
        { title: 'for', spare: true },
        { title: 'in', align: 'right' },
        { title: 'pages', align: 'right' },
        { title: 'bytes/visit', align: 'right' },
        { title: 'time/visit', align: 'right', spare: true },
        { title: 'worst', spare: true, least: 16 },
      ],
      shown.map((row) => [
        ...findingCells(row),
        shorten(withoutOrigin(row.worst, originOf(survey)), mostName),
      ]),
    ),
    ...(left > 0 ? [dim(`${count(left, 'more kind')}; --top ${rows.length} shows all.`)] : []),
    ...muted.map(({ finding, address, group, reason }) =>
      dim(
        `muted: ${finding}${address === undefined ? '' : ` at ${plainText(address)}`}${group === undefined ? '' : ` on ${plainText(group)}`} (${plainText(reason)})`,
      ),
    ),
    '',
    dim(
      'bytes/visit, time/visit: what an average visit would be spared. Of images it is what they waste,',
    ),
    dim(
      'so that an image with several findings counts in each. – means no such cost, or none that is known.',
    ),
    `Next: zealous-lynx explain ${shown[0]!.id}${isNamed ? ` --survey ${quoted(plainText(survey.label))}` : ''} lists what has the first, and how to fix it.`,
  ].join('\n');
}
