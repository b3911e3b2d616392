import type { ElementChange } from '../../core/refit/markup/element-changes.js';
import { snippetRules } from '../../core/refit/markup/snippet.js';
import type { ProvedSnippets, Snippet, SnippetPlace } from '../../core/refit/markup/snippet.js';
import { snippetTemplates } from '../../core/refit/markup/snippet-template.js';
import type { SnippetTemplate } from '../../core/refit/markup/snippet-template.js';
import { asCode, asLink, escaped } from './markdown.js';
import { plainText } from '../words/plain-text.js';
import { count } from '../words/units.js';

/** The most pages, selectors and images that are named. */
const named = 5;

/** Markup and styles to change, one block for each slot family, as Markdown. */
export function snippetsMarkdown({ snippets, withheld, proved, untried }: ProvedSnippets): string {
  const needsRules = snippets.some(({ text }) => /<picture|--ratio/.test(text));
  return [
    '# Markup to change',
    'Each element stands here as it is in the page, changed only where the fix is. Paths are relative to the root of the site: copy the files of the refit there, or change the paths.',
    proofText(proved.size, snippets.length, untried),
    ...(needsRules
      ? [
          'Put these rules before all others in the style sheet. Any other rule overrides them; they keep the layout as it is where an image is now inside a picture element. A selector that steps from parent to child (`.card > img`) has to name the picture as well.',
          block('css', snippetRules),
        ]
      : []),
    ...snippetTemplates(snippets).map(templateText),
    ...snippets.filter(({ language }) => language === 'css').map(styleText),
    ...(withheld.length > 0
      ? [
          '## Without a snippet',
          ...withheld.map(
            ({ url, places, reason }) => `${asLink(url)}: ${escaped(reason)}. ${whereOf(places)}`,
          ),
        ]
      : []),
  ].join('\n\n');
}

/** What was tried, and what was not. */
function proofText(proved: number, all: number, untried: readonly string[]): string {
  const tried = `${count(proved, 'snippet was', 'snippets were')} tried in a page, in every view of the survey: each element keeps its box, nothing around it moves, and the browser chooses the file that is meant.`;
  const rest = all - proved;
  const reasons = untried.slice(0, named).map(escaped).join('; ');
  const others = `${count(rest, 'snippet was', 'snippets were')} not tried${reasons ? `: ${reasons}` : ''}.`;
  if (proved === 0) return others;
  return rest > 0 ? `${tried} ${others}` : tried;
}

function templateText({ where, slot, snippets, text, placeholders }: SnippetTemplate): string {
  const places = snippets.flatMap((snippet) => snippet.places);
  const [{ url, changes, before }] = snippets as [Snippet];
  const differs =
    placeholders.length === 0
      ? []
      : [
          `What differs from image to image is in braces (${placeholders.map((name) => asCode(`{${name}}`)).join(', ')}); snippets.json has the markup of each image.`,
        ];
  const images = [...new Set(snippets.map((snippet) => snippet.url))];
  const more = images.length - named;
  return [
    `## ${asCode(slot)} in ${escaped(where)}`,
    `${images.slice(0, named).map(asLink).join(', ')}${more > 0 ? ` and ${count(more, 'more image')}` : ''}. ${whereOf(places)}`,
    ...(snippets.length === 1
      ? ['Change:', changes.map(changeText).join('\n')]
      : [`Change, for ${asLink(url)}:`, changes.map(changeText).join('\n')]),
    ...(before === null || snippets.length > 1 ? [] : ['From', block('html', before)]),
    snippets.length === 1 ? 'to' : 'Template:',
    block('html', text),
    ...differs,
  ].join('\n\n');
}

function changeText(change: ElementChange): string {
  switch (change.action) {
    case 'set':
      return `- set ${asCode(change.name)} of the ${asCode(change.element)} to ${asCode(change.value)}`;
    case 'remove':
      return `- remove ${asCode(change.name)} from the ${asCode(change.element)}`;
    case 'wrap':
      return `- put a ${asCode('<picture>')} around the ${asCode('img')}`;
    case 'add':
      return `- add ${asCode(change.tag)} in front of the ${asCode('img')}`;
    case 'delete':
      return `- delete ${asCode(change.tag)}`;
  }
}

function styleText({ url, places, language, text }: Snippet): string {
  return [
    `## ${asLink(url)}`,
    `Replace its url() in the styles. ${whereOf(places)}`,
    block(language, text),
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

function whereOf(places: readonly SnippetPlace[]): string {
  const pages = some([...new Set(places.map(({ page }) => page))], 'page');
  const selectors = some([...new Set(places.map(({ selector }) => selector))], 'selector');
  return `On ${pages}: ${selectors}.`;
}

/** A block of code that no text of foreign origin ends. */
function block(language: string, text: string): string {
  const lines = text.split('\n').map((line) => plainText(line, 12_000).replaceAll('```', "'''"));
  return ['```' + language, ...lines, '```'].join('\n');
}

function some(items: readonly string[], one: string): string {
  const more = items.length - named;
  const told = items.slice(0, named).map(asCode).join(', ');
  return more > 0 ? `${told} and ${count(more, `more ${one}`)}` : told;
}
