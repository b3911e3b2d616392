import { keptAddress } from '../../core/address/address.js';
import type { FontUse } from '../../core/survey/load-facts.js';
import { bare } from './font-faces.js';
import type { DeclaredFace } from './font-faces.js';

/** The most texts, and the most elements with generated content, that are looked at. */
const maxTexts = 20_000;
const maxElements = 5_000;
const maxCharacters = 5_000;

/** The characters that the document draws with each font file. Of fonts for a part of all characters that is not told. */
export function fontUseOf(faces: readonly DeclaredFace[]): FontUse[] {
  const whole = faces.filter(({ used, isPart, urls }) => used && !isPart && urls.length > 0);
  if (whole.length === 0) return [];
  const loaded = new Set(performance.getEntriesByType('resource').map(({ name }) => name));
  const sets = new Map<DeclaredFace, Set<string>>();
  for (const [style, text] of drawnTexts()) {
    const face = faceFor(style, whole);
    if (!face) continue;
    const set = sets.get(face) ?? new Set<string>();
    sets.set(face, set);
    for (const character of shown(text, style)) set.add(character);
  }
  return whole.map((face) => ({
    url: keptAddress(face.urls.find((url) => loaded.has(url)) ?? face.urls[0]!),
    characters: [...(sets.get(face) ?? [])]
      .filter((character) => character >= ' ')
      .sort((a, b) => a.codePointAt(0)! - b.codePointAt(0)!)
      .slice(0, maxCharacters)
      .join(''),
  }));
}

/** The texts of the document with the styles that they are drawn in; of elements, and before and after them. */
function* drawnTexts(): Generator<readonly [CSSStyleDeclaration, string]> {
  const styles = new WeakMap<Element, CSSStyleDeclaration>();
  const texts = document.createTreeWalker(document.body ?? document, NodeFilter.SHOW_TEXT);
  for (let left = maxTexts, node = texts.nextNode(); node && left > 0; node = texts.nextNode()) {
    const parent = node.parentElement;
    if (!parent || !node.nodeValue?.trim() || /^(?:SCRIPT|STYLE|NOSCRIPT)$/.test(parent.nodeName))
      continue;
    left--;
    const style = styles.get(parent) ?? getComputedStyle(parent);
    styles.set(parent, style);
    yield [style, node.nodeValue];
  }
  let left = maxElements;
  for (const element of document.body?.querySelectorAll('*') ?? []) {
    if (left-- <= 0) return;
    for (const pseudo of ['::before', '::after']) {
      const style = getComputedStyle(element, pseudo);
      for (const [, text] of style.content.matchAll(/"((?:[^"\\]|\\.)*)"/g)) yield [style, text!];
    }
  }
  for (const field of document.querySelectorAll<HTMLInputElement>('input, textarea'))
    yield [getComputedStyle(field), `${field.value} ${field.placeholder}`];
}

/** A text as it is drawn, with what small and large letters it may become. */
function shown(text: string, { textTransform, fontVariantCaps }: CSSStyleDeclaration): string {
  const isChanged = textTransform !== 'none' || fontVariantCaps !== 'normal';
  return isChanged ? text + text.toUpperCase() + text.toLowerCase() : text;
}

const named: Readonly<Record<string, number>> = { normal: 400, bold: 700 };

function weightOf(text: string): number {
  return named[text] ?? (Number.parseFloat(text) || 400);
}

/** The face that a text is drawn with: of the first family that is declared, the one that is nearest in style and weight. */
function faceFor(
  { fontFamily, fontWeight, fontStyle }: CSSStyleDeclaration,
  faces: readonly DeclaredFace[],
): DeclaredFace | undefined {
  const families = fontFamily.split(',').map(bare);
  const family = families.find((name) => faces.some((face) => face.family === name));
  const weight = weightOf(fontWeight);
  const distance = (face: DeclaredFace) => {
    const [least, most = least] = face.weight.split(/\s+/).map(weightOf) as [number, number?];
    const off = weight < least ? least - weight : weight > most ? weight - most : 0;
    return off + (face.style === fontStyle ? 0 : 1_000);
  };
  return faces
    .filter((face) => face.family === family)
    .reduce<DeclaredFace | undefined>(
      (best, face) => (best && distance(best) <= distance(face) ? best : face),
      undefined,
    );
}
