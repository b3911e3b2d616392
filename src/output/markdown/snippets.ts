import { snippetRules } from '../../core/refit/snippet.js';
import type { Snippet, SnippetPlace } from '../../core/refit/snippet.js';
import { asCode, asLink, escaped } from './markdown.js';
import { plainText } from '../words/plain-text.js';
import { count } from '../words/units.js';

/** So many pages and selectors of a snippet are named. */
const named = 5;

/** Markup and styles to paste, one block a place, as Markdown. */
export function snippetsMarkdown(snippets: readonly Snippet[]): string {
  return [
    '# Markup to paste',
    'Paths are below the root of the site: put the folder of the refit there, or change them.',
    'These rules belong ahead of all others in the style sheet. They yield to whatever it says itself, and keep the layout as it is now that a picture stands around each image. A selector that steps from parent to child (`.card > img`) has to name the picture, too.',
    block('css', snippetRules),
    ...snippets.map((snippet) =>
      [`## ${asLink(snippet.url)}`, whereOf(snippet), block(snippet.language, snippet.text)].join(
        '\n\n',
      ),
    ),
  ].join('\n\n');
}

/** The same for pictures that stand on no page yet. */
export function picturesMarkdown(
  pictures: readonly { readonly path: string; readonly text: string }[],
): string {
  return [
    '# Markup to paste',
    'Paths are below the folder of the refit. How wide the slot of a picture is, and what it shows, nobody knows yet: say it in `sizes` and `alt`, and take `loading="lazy"` away in the first screen.',
    ...pictures.map(({ path, text }) => [`## ${escaped(path)}`, block('html', text)].join('\n\n')),
  ].join('\n\n');
}

function whereOf({ places, replaces }: Snippet): string {
  const pages = some([...new Set(places.map(({ page }: SnippetPlace) => page))], 'page');
  const selectors = some([...new Set(places.map(({ selector }) => selector))], 'selector');
  return replaces === 'element'
    ? `On ${pages}; in place of ${selectors}.`
    : `On ${pages}; in place of its url() in the style of ${selectors}.`;
}

/** A block of code that no text of foreign origin ends. */
function block(language: string, text: string): string {
  const lines = text.split('\n').map((line) => plainText(line, 8_000).replaceAll('```', "'''"));
  return ['```' + language, ...lines, '```'].join('\n');
}

function some(items: readonly string[], one: string): string {
  const more = items.length - named;
  const told = items.slice(0, named).map(asCode).join(', ');
  return more > 0 ? `${told} and ${count(more, `more ${one}`)}` : told;
}
