import { load } from 'cheerio';
import type { Element } from 'domhandler';
import type { Recording } from '../../../core/trial/recording.js';
import type { HtmlEdits } from '../../../texts/html-edits.js';
import { editDocuments } from './fix.js';
import type { FixOutcome, FixTools } from './fix.js';

/** The `<img>` of a snippet. */
export function imageOf(text: string): Readonly<Record<string, string>> | null {
  const $ = load(text, {}, false);
  const [image] = $('img').toArray();
  return image ? image.attribs : null;
}

/** The styles that go with snippets, ahead of the page's own, once. */
export function addRules(document: HtmlEdits, rules: string): void {
  const isThere = document.find('style').some((style) => document.textOf(style).includes(rules));
  if (rules !== '' && !isThere) document.prependToHead(`<style>${rules}</style>`);
}

export interface GivenAttributes {
  /** Whether the styles that go with the snippets are put in as well. */
  readonly withRules?: boolean;
  /** Is told each image that has changed, and the address of its document. */
  readonly onChange?: (image: Element, base: string) => void;
}

/** Gives the elements that a refit has snippets for some attributes of their snippet, and leaves the others. */
export async function giveAttributes(
  recording: Recording,
  tools: FixTools,
  names: readonly string[],
  { withRules = false, onChange = () => {} }: GivenAttributes = {},
): Promise<FixOutcome> {
  const due = tools.refit?.snippets ?? [];
  let absent = 0;
  const outcome = await editDocuments(recording, tools, (document, url) => {
    let changed = 0;
    for (const { selector, text } of due.filter(({ page }) => page === url)) {
      const [element] = document.find(selector);
      const image = imageOf(text);
      if (!image) continue;
      if (element?.name !== 'img') {
        absent++;
        continue;
      }
      const before = document.count;
      for (const name of names) {
        const value = image[name] ?? null;
        // What a snippet does not name, it does not take away.
        if (value !== null || name === 'loading') document.setAttribute(element, name, value);
      }
      if (document.count === before) continue;
      changed++;
      onChange(element, url);
    }
    if (withRules && changed > 0) addRules(document, tools.refit?.rules ?? '');
    return changed;
  });
  return { ...outcome, notes: absentNote(absent) };
}

/** That some elements are not in the documents as they were sent. */
export function absentNote(count: number): string[] {
  if (count === 0) return [];
  return [
    count === 1
      ? '1 element is made by scripts, and stays as it is'
      : `${count} elements are made by scripts, and stay as they are`,
  ];
}
