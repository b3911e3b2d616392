import { doers } from '../../core/findings/finding.js';
import type { WorkItem } from '../../core/refit/work-item.js';
import { count, formatBytes } from '../words/units.js';
import { asCode, asLink, escaped } from './markdown.js';

/** The most pages named in a row. */
const named = 3;

/** A work list for people: a table for everybody who has something to do. */
export function worklistMarkdown(items: readonly WorkItem[]): string {
  const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  const total = items.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0);
  const titles = ['saved per visit', 'what', 'image', 'pages', 'selector', 'from', 'to'];
  const parts = doers.flatMap((doer) => {
    const own = items.filter(({ who }) => who === doer);
    if (own.length === 0) return [];
    const saved = own.reduce((sum, { savedPerVisit }) => sum + savedPerVisit, 0);
    return [
      [
        `## ${doer[0]!.toUpperCase()}${doer.slice(1)}`,
        '',
        `${count(own.length, 'fix', 'fixes')}, ${formatBytes(saved)} per visit.`,
        '',
        line(titles),
        line(titles.map(() => '---')),
        ...own.map((item) =>
          line([
            item.savedPerVisit > 0 ? formatBytes(item.savedPerVisit) : '–',
            escaped(item.what),
            asLink(item.url),
            escaped(pagesOf(item)),
            asCode(item.selector),
            ...[item.from, item.to].map(escaped),
          ]),
        ),
      ].join('\n'),
    ];
  });
  return ['# To do', `Together this saves an average visit ${formatBytes(total)}.`, ...parts].join(
    '\n\n',
  );
}

function pagesOf({ pages }: WorkItem): string {
  const more = pages.length - named;
  const paths = pages.slice(0, named).map((page) => new URL(page).pathname);
  return more > 0 ? `${paths.join(', ')} and ${more} more` : paths.join(', ');
}
