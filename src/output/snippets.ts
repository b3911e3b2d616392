import type { MadeVariant, RefitOrder } from '../core/refit-plan.js';
import { snippetsOf } from '../core/snippet.js';
import { escaped } from './markdown.js';
import { plainText } from './plain-text.js';
import { count } from './units.js';

/** So many pages and selectors of a snippet are named. */
const named = 5;

/** Markup and styles to paste, one block an image, as Markdown. */
export function snippetsMarkdown(
  orders: readonly RefitOrder[],
  made: readonly MadeVariant[],
): string {
  const blocks = orders.flatMap((order) =>
    snippetsOf(order, made).map(({ url, pages, selectors, language, text }) =>
      [
        `## ${escaped(url)}`,
        '',
        `On ${some(pages, 'page')}; where there is now ${some(selectors, 'selector')}.`,
        '',
        `\`\`\`${language}`,
        // No text of foreign origin may end the block.
        ...text.split('\n').map((line) => plainText(line, 8_000).replaceAll('```', "'''")),
        '```',
      ].join('\n'),
    ),
  );
  return [
    '# Markup to paste',
    'Paths are below the root of the site: put the folder of the refit there, or change them.',
    ...blocks,
  ].join('\n\n');
}

function some(items: readonly string[], one: string): string {
  const more = items.length - named;
  const told = items.slice(0, named).map(escaped).join(', ');
  return more > 0 ? `${told} and ${count(more, `more ${one}`)}` : told;
}
