import { snippetRules } from '../../core/refit/snippet.js';
import type { Snippet, SnippetPlace } from '../../core/refit/snippet.js';
import { asCode, asLink, escaped } from './markdown.js';
import { plainText } from '../words/plain-text.js';
import { count } from '../words/units.js';

/** The most pages and selectors of a snippet that are named. */
const named = 5;

/** Markup and styles to paste, one block a place, as Markdown. */
export function snippetsMarkdown(snippets: readonly Snippet[]): string {
  return [
    '# Markup to paste',
    'Paths are relative to the root of the site: copy the files of the refit there, or change the paths.',
    'Put these rules before all others in the style sheet. Any other rule overrides them; they keep the layout as it is although each image is now inside a picture element. A selector that steps from parent to child (`.card > img`) has to name the picture as well.',
    block('css', snippetRules),
    ...snippets.map((snippet) =>
      [`## ${asLink(snippet.url)}`, whereOf(snippet), block(snippet.language, snippet.text)].join(
        '\n\n',
      ),
    ),
  ].join('\n\n');
}

/** The same for pictures that are on no page yet. */
export function picturesMarkdown(
  pictures: readonly { readonly path: string; readonly text: string }[],
): string {
  return [
    '# Markup to paste',
    'Paths are relative to the folder of the refit. Fill in the width of the slot (`sizes`) and what the picture shows (`alt`), and remove `loading="lazy"` in the first screen.',
    ...pictures.map(({ path, text }) => [`## ${escaped(path)}`, block('html', text)].join('\n\n')),
  ].join('\n\n');
}

function whereOf({ places, replaces }: Snippet): string {
  const pages = some([...new Set(places.map(({ page }: SnippetPlace) => page))], 'page');
  const selectors = some([...new Set(places.map(({ selector }) => selector))], 'selector');
  return replaces === 'element'
    ? `On ${pages}: replaces ${selectors}.`
    : `On ${pages}: replaces its url() in the style of ${selectors}.`;
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
