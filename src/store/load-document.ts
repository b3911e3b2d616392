import type { DocumentParts, FontUse, LoadFacts, TextUse } from '../core/survey/load-facts.js';
import type { TermOf } from './visit-document.js';

/** How a visit loaded, as it is kept: what the pages of a template repeat as the numbers of terms. */
export interface LoadDocument extends Pick<
  LoadFacts,
  'wait' | 'redirects' | 'elements' | 'shifts' | 'scriptTimes'
> {
  readonly parts: number;
  readonly styleUse: readonly number[];
  readonly scriptUse: readonly number[];
  readonly fontUse: readonly number[];
}

export function loadDocument(load: LoadFacts | null, term: TermOf): LoadDocument | null {
  if (load === null) return null;
  const numbers = (list: readonly object[]) => list.map((one) => term(JSON.stringify(one)));
  const { parts, styleUse, scriptUse, fontUse, ...own } = load;
  return {
    ...own,
    parts: term(JSON.stringify(parts)),
    styleUse: numbers(styleUse),
    scriptUse: numbers(scriptUse),
    fontUse: numbers(fontUse),
  };
}

/** The same with other numbers for the terms. */
export function renumberedLoad(
  load: LoadDocument,
  toNumber: (number: number) => number,
): LoadDocument {
  return {
    ...load,
    parts: toNumber(load.parts),
    styleUse: load.styleUse.map(toNumber),
    scriptUse: load.scriptUse.map(toNumber),
    fontUse: load.fontUse.map(toNumber),
  };
}

/** Reads how visits loaded; each different term is parsed once. */
export class LoadReader {
  readonly #texts: ReadonlyMap<number, string>;
  readonly #read = new Map<number, unknown>();

  constructor(texts: ReadonlyMap<number, string>) {
    this.#texts = texts;
  }

  read(text: string): LoadFacts | null {
    const stored = JSON.parse(text) as LoadDocument | null;
    if (stored === null) return null;
    return {
      ...stored,
      parts: this.#term<DocumentParts>(stored.parts),
      styleUse: stored.styleUse.map((number) => this.#term<TextUse>(number)),
      scriptUse: stored.scriptUse.map((number) => this.#term<TextUse>(number)),
      fontUse: stored.fontUse.map((number) => this.#term<FontUse>(number)),
    };
  }

  #term<Value>(number: number): Value {
    if (!this.#read.has(number)) this.#read.set(number, JSON.parse(this.#texts.get(number)!));
    return this.#read.get(number) as Value;
  }
}
