import { generate, walk } from 'css-tree/dist/csstree.esm';
import type { CssNode } from 'css-tree';
import { parseCss } from './parse-css.js';

/** An `@import` at the head of a style sheet. */
export interface StyleImport {
  readonly from: number;
  readonly to: number;
  /** As it is written. */
  readonly url: string;
  /** The media that it is for; an empty text for all. */
  readonly media: string;
}

const options = { positions: true, parseValue: true } as const;

/**
 * The `@import` rules of a style sheet that browsers obey: those ahead of all other rules (CSS Cascade 4, section 2), in a
 * form that names an address and media alone.
 */
export function styleImports(text: string): StyleImport[] {
  const found: StyleImport[] = [];
  const sheet = parseCss(text, options);
  if (sheet.type !== 'StyleSheet') return found;
  for (const node of sheet.children.toArray()) {
    if (node.type === 'Comment' || (node.type === 'Atrule' && node.name === 'charset')) continue;
    if (node.type !== 'Atrule' || node.name !== 'import' || !node.loc) break;
    const prelude = node.prelude?.type === 'AtrulePrelude' ? node.prelude.children.toArray() : [];
    const [address, ...rest] = prelude;
    const isPlain = rest.every(({ type }) => type === 'MediaQueryList');
    if ((address?.type !== 'Url' && address?.type !== 'String') || !isPlain) break;
    found.push({
      from: node.loc.start.offset,
      to: node.loc.end.offset,
      url: address.value,
      media: rest.map((one) => generate(one)).join(' '),
    });
  }
  return found;
}

/** A style sheet whose relative addresses mean the same when it stands at another address. */
export function rebased(text: string, base: string): string {
  const edits: { from: number; to: number; text: string }[] = [];
  walk(parseCss(text, options), (node: CssNode) => {
    if (node.type !== 'Url' || !node.loc || /^(?:data:|#)/i.test(node.value)) return;
    if (!URL.canParse(node.value, base)) return;
    const { href } = new URL(node.value, base);
    edits.push({
      from: node.loc.start.offset,
      to: node.loc.end.offset,
      text: `url("${href.replaceAll('"', '%22')}")`,
    });
  });
  return edits.reduceRight(
    (whole, edit) => whole.slice(0, edit.from) + edit.text + whole.slice(edit.to),
    text,
  );
}
