import { splitExtension } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { attributeOf, elementText } from '../../slots/element-markup.js';
import type { Attributes, ElementMarkup } from '../../slots/element-markup.js';
import type { Snippet } from './snippet.js';

/** The same markup for several images of a slot family, as a template writes it. */
export interface SnippetTemplate {
  readonly where: string;
  readonly slot: string;
  readonly snippets: readonly Snippet[];
  /** With placeholders in braces for what differs between its snippets. */
  readonly text: string;
  readonly placeholders: readonly string[];
}

/** The snippets for elements by slot family, those that a template can write in the same way together. */
export function snippetTemplates(snippets: readonly Snippet[]): SnippetTemplate[] {
  const alike = groupBy(
    snippets.filter(({ after }) => after !== null),
    ({ where, slot, after }) => JSON.stringify([where, slot, sketchOf(after!)]),
  );
  return [...alike.values()].map((some): SnippetTemplate => {
    const [{ where, slot }] = some as [Snippet];
    const placeholders = new Set<string>();
    const isAlone = some.length === 1;
    const element = isAlone ? some[0]!.after! : merged(some.map(namedByFile), placeholders);
    const text = elementText(element);
    return { where, slot, snippets: some, text, placeholders: [...placeholders].sort() };
  });
}

/** What a template cannot fill in: which attributes and sources there are, and the `sizes`. */
function sketchOf({ attributes, picture }: ElementMarkup) {
  const namesOf = (one: Attributes) => [one.map(([name]) => name), attributeOf(one, 'sizes')];
  return [
    namesOf(attributes),
    picture && [namesOf(picture.attributes), ...picture.sources.map(namesOf)],
  ];
}

/** The element of a snippet with `{file}` in place of the name that its files have in common. */
function namedByFile({ url, after }: Snippet): ElementMarkup {
  const path = URL.canParse(url) ? new URL(url).pathname : url;
  const { stem } = splitExtension(path);
  const named = (attributes: Attributes): Attributes =>
    attributes.map(([name, value]) => [
      name,
      stem === '/' ? value : value.replaceAll(stem, '{file}'),
    ]);
  return {
    attributes: named(after!.attributes),
    picture: after!.picture && {
      attributes: named(after!.picture.attributes),
      sources: after!.picture.sources.map(named),
    },
  };
}

/** Elements of the same sketch as one; `placeholders` gets the names of what differs. */
function merged(elements: readonly ElementMarkup[], placeholders: Set<string>): ElementMarkup {
  const [first] = elements as [ElementMarkup];
  const one = (all: readonly Attributes[]): Attributes =>
    all[0]!.map(([name, value], at) => {
      const isCommon = all.every((attributes) => attributes[at]![1] === value);
      if (isCommon && !value.includes('{file}')) return [name, value];
      placeholders.add(isCommon ? 'file' : name);
      return [name, isCommon ? value : `{${name}}`];
    });
  return {
    attributes: one(elements.map(({ attributes }) => attributes)),
    picture: first.picture && {
      attributes: one(elements.map(({ picture }) => picture!.attributes)),
      sources: first.picture.sources.map((_, at) =>
        one(elements.map(({ picture }) => picture!.sources[at]!)),
      ),
    },
  };
}
