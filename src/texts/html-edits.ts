import { load } from 'cheerio';
import type { CheerioAPI } from 'cheerio';
import type { Element } from 'domhandler';

interface Edit {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** Where a tag or an attribute stands in the source. */
interface Range {
  readonly startOffset: number;
  readonly endOffset: number;
}

/** Positions of an element in the source, as the parser tells them. */
interface SourceLocation extends Range {
  readonly startTag?: Range & { readonly attrs?: Readonly<Record<string, Range>> };
  readonly attrs?: Readonly<Record<string, Range>>;
}

/**
 * A document that is changed in places: it is parsed as browsers parse it (parse5, the HTML standard), and every byte that
 * no change touches stays as it is.
 */
export class HtmlEdits {
  readonly $: CheerioAPI;
  readonly #source: string;
  readonly #edits: Edit[] = [];

  constructor(source: string) {
    this.#source = source;
    this.$ = load(source, { sourceCodeLocationInfo: true });
  }

  /** The number of changes. */
  get count(): number {
    return this.#edits.length;
  }

  /** The elements that a selector finds and that stand in the source; none where it is no selector. */
  find(selector: string): Element[] {
    try {
      return this.$(selector)
        .toArray()
        .filter((node): node is Element => 'attribs' in node && locationOf(node) !== undefined);
    } catch {
      return [];
    }
  }

  /** The element as it stands in the source. */
  textOf(element: Element): string {
    const { startOffset, endOffset } = locationOf(element)!;
    return this.#source.slice(startOffset, endOffset);
  }

  /** Sets an attribute; `null` takes it out. Does nothing where it has that value already. */
  setAttribute(element: Element, name: string, value: string | null): void {
    const now = element.attribs[name] ?? null;
    if (now === value) return;
    const location = locationOf(element)!;
    const tag = location.startTag ?? location;
    const known = (location.startTag?.attrs ?? location.attrs)?.[name];
    const text = value === null ? '' : attributeText(name, value);
    if (known) {
      // The blank before it goes with it.
      const from = value === null ? known.startOffset - 1 : known.startOffset;
      this.#edits.push({ from, to: known.endOffset, text });
    } else {
      const at = tag.startOffset + 1 + element.name.length;
      this.#edits.push({ from: at, to: at, text: ` ${text}` });
    }
    if (value === null) delete element.attribs[name];
    else element.attribs[name] = value;
  }

  /** Puts other text in place of an element with all that is in it; an empty text takes it out. */
  replace(element: Element, text: string): void {
    const { startOffset, endOffset } = locationOf(element)!;
    this.#edits.push({ from: startOffset, to: endOffset, text });
  }

  /** Puts text around an element. */
  surround(element: Element, before: string, after: string): void {
    const { startOffset, endOffset } = locationOf(element)!;
    this.#edits.push({ from: startOffset, to: startOffset, text: before });
    this.#edits.push({ from: endOffset, to: endOffset, text: after });
  }

  /** Puts text ahead of everything in the head. */
  prependToHead(text: string): void {
    const [head] = this.find('head');
    const location = head && locationOf(head);
    const first = this.$('head').children().toArray().map(locationOf).find(Boolean);
    const at = location?.startTag?.endOffset ?? first?.startOffset ?? 0;
    this.#edits.push({ from: at, to: at, text });
  }

  toString(): string {
    const inOrder = this.#edits
      .map((edit, index) => ({ ...edit, index }))
      .sort((a, b) => a.from - b.from || a.to - b.to || a.index - b.index);
    let result = '';
    let at = 0;
    for (const { from, to, text } of inOrder) {
      // What lies in a part that was replaced is gone with it.
      if (from < at) continue;
      result += this.#source.slice(at, from) + text;
      at = to;
    }
    return result + this.#source.slice(at);
  }
}

function locationOf(node: unknown): SourceLocation | undefined {
  return (node as { sourceCodeLocation?: SourceLocation | null }).sourceCodeLocation ?? undefined;
}

function attributeText(name: string, value: string): string {
  return value === ''
    ? name
    : `${name}="${value.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}"`;
}
