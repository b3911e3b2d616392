import { doers } from '../../core/findings/finding.js';
import { groupBy } from '../../core/base/group-by.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import { count, formatBytes } from '../words/units.js';
import { asLink, escaped } from './markdown.js';

/** A work list for people: for everybody who has something to do a table for each template, the largest saving first. */
export function worklistMarkdown(items: readonly WorkItem[]): string {
  const total = savedBy(items);
  const parts = doers.flatMap((doer) => {
    const own = items.filter(({ who }) => who === doer);
    if (own.length === 0) return [];
    const places = [...groupBy(own, ({ where }) => where)].sort(
      ([, a], [, b]) => savedBy(b) - savedBy(a),
    );
    return [
      `## ${doer[0]!.toUpperCase()}${doer.slice(1)}\n\n${count(own.length, 'fix', 'fixes')}, ${formatBytes(savedBy(own))} per visit.`,
      ...places.map(([where, some]) => placeText(where, some)),
    ];
  });
  return [
    '# To do',
    `Together this saves an average visit ${formatBytes(total)}. tickets.md has each row as the text of a ticket, with its pages, its element and how to check that it is done.`,
    ...parts,
  ].join('\n\n');
}

function placeText(where: string | null, items: readonly WorkItem[]): string {
  const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  const titles = ['id', 'saved per visit', 'what', 'image', 'from', 'to'];
  return [
    `### ${where === null ? 'All pages' : escaped(where)}`,
    '',
    line(titles),
    line(titles.map(() => '---')),
    ...items.map(({ id, savedPerVisit, what, url, images, from, to }) =>
      line([
        id,
        savedPerVisit >= 1 ? formatBytes(savedPerVisit) : '–',
        escaped(what),
        asLink(url) + (images > 1 ? ` and ${images - 1} more` : ''),
        ...[from, to].map(escaped),
      ]),
    ),
  ].join('\n');
}

function savedBy(items: readonly WorkItem[]): number {
  return items.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0);
}
