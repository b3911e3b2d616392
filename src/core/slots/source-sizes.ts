/**
 * The `sizes` attribute as the HTML standard reads it ("parse a sizes attribute"): the first length whose
 * media condition holds. Understood are widths of the viewport and resolutions in conditions, and lengths in `px`, `em`,
 * `rem`, `vw` with `calc()`, `min()`, `max()` and `clamp()`.
 */

/**
 * Width in CSS pixels that `sizes` names at a width of the viewport.
 *
 * @param density device pixels to one CSS pixel; 1 when it is left out
 */
export type SourceSize = (viewport: number, density?: number) => number;

/** The default where there is no `sizes`: as wide as the viewport. */
export const wholeViewport: SourceSize = (viewport) => viewport;

/** Longer texts are not read. */
const maxLength = 4_000;

/** Wider is no element. */
const maxWidth = 1e6;

/** Dots of an inch at one device pixel to one CSS pixel (CSS Values and Units, section 6.2). */
const dotsPerPixel = 96;

/** Pixels of an `em` in media conditions and lengths: the initial font size, as the standard requires. */
const initialFontSize = 16;

/**
 * Reads a `sizes` attribute.
 *
 * @returns `undefined` when it holds what is not understood here, `auto` among it
 */
export function parseSizes(text: string): SourceSize | undefined {
  if (text.length > maxLength) return undefined;
  const entries: { holds: Condition; length: SourceSize }[] = [];
  for (const entry of splitOutside(text, ',')) {
    const cut = lastValueAt(entry.trim());
    const condition = entry.trim().slice(0, cut).trim();
    const holds = condition === '' ? () => true : parseCondition(condition);
    const length = parseLength(entry.trim().slice(cut));
    if (!holds || !length) return undefined;
    entries.push({ holds, length });
  }
  return (viewport, density = 1) => {
    const found = entries.find(({ holds }) => holds(viewport, density));
    const width = (found?.length ?? wholeViewport)(viewport);
    // What a calculation cannot tell is nothing (CSS Values and Units Level 4, section 10.9).
    return Number.isNaN(width) ? 0 : Math.min(maxWidth, Math.max(0, width));
  };
}

/** The parts of a text between separators outside brackets. */
function splitOutside(text: string, sign: string): string[] {
  const parts = [''];
  let depth = 0;
  for (const character of text) {
    if (character === '(') depth++;
    if (character === ')') depth--;
    if (character === sign && depth === 0) parts.push('');
    else parts[parts.length - 1] += character;
  }
  return parts;
}

/** The start of the last value of an entry: after the last blank outside brackets. */
function lastValueAt(entry: string): number {
  let depth = 0;
  for (let at = entry.length - 1; at >= 0; at--) {
    if (entry[at] === ')') depth++;
    if (entry[at] === '(') depth--;
    if (depth === 0 && /\s/.test(entry[at]!)) return at + 1;
  }
  return 0;
}

type Condition = (viewport: number, density: number) => boolean;

/** `(min-width: 40em) and (width < 900px)`: any number of them, all of which must hold. */
function parseCondition(text: string): Condition | undefined {
  const parts = text.toLowerCase().split(/\s+and\s+/);
  const conditions = parts.map(parseFeature);
  if (conditions.some((condition) => condition === undefined)) return undefined;
  return (viewport, density) => conditions.every((condition) => condition!(viewport, density));
}

const comparisons: Readonly<Record<string, (one: number, other: number) => boolean>> = {
  '<': (one, other) => one < other,
  '<=': (one, other) => one <= other,
  '>': (one, other) => one > other,
  '>=': (one, other) => one >= other,
  '=': (one, other) => one === other,
};

function parseFeature(text: string): Condition | undefined {
  const inner = /^\(\s*([^()]*)\s*\)$/.exec(text.trim())?.[1]?.trim();
  if (inner === undefined) return undefined;
  const [, edge, value] = /^(min|max)-width\s*:\s*(.+)$/.exec(inner) ?? [];
  if (edge && value) return compare(edge === 'min' ? '>=' : '<=', value);
  const [, bound, number, unit] =
    /^(min|max)-resolution\s*:\s*(\d*\.?\d+)(dppx|x|dpi)$/.exec(inner) ?? [];
  if (bound && number) {
    const limit = Number(number) / (unit === 'dpi' ? dotsPerPixel : 1);
    return (_, density) => (bound === 'min' ? density >= limit : density <= limit);
  }
  const range = /^(?:([^<>=]+?)\s*(<=?|>=?)\s*)?width(?:\s*(<=?|>=?|=)\s*([^<>=]+))?$/.exec(inner);
  if (!range || (!range[2] && !range[3])) return undefined;
  const [, before, left, right, after] = range;
  const turned = left?.replace(/[<>]/, (sign) => (sign === '<' ? '>' : '<'));
  const conditions = [
    ...(before && turned ? [compare(turned, before)] : []),
    ...(right && after ? [compare(right, after)] : []),
  ];
  if (conditions.some((condition) => condition === undefined)) return undefined;
  return (viewport, density) => conditions.every((condition) => condition!(viewport, density));
}

function compare(sign: string, value: string): Condition | undefined {
  const length = parseLength(value);
  return length && ((viewport) => comparisons[sign]!(viewport, length(viewport)));
}

const units: Readonly<Record<string, SourceSize>> = {
  px: () => 1,
  em: () => initialFontSize,
  rem: () => initialFontSize,
  vw: (viewport) => viewport / 100,
  '': () => 1,
};

/** A length by recursive descent: sums of products of numbers, brackets and functions. */
function parseLength(text: string): SourceSize | undefined {
  const tokens = text
    .toLowerCase()
    .match(/(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?[a-z]*|[a-z]+\(|[-+*/(),]|\S/g);
  if (!tokens) return undefined;
  let at = 0;
  const list = (): SourceSize[] => {
    const values = [sum()];
    while (tokens[at] === ',') {
      at++;
      values.push(sum());
    }
    if (tokens[at++] !== ')') throw new SyntaxError();
    return values;
  };
  const value = (): SourceSize => {
    const token = tokens[at++] ?? '';
    if (token === '-' || token === '+') {
      const inner = value();
      return (viewport) => (token === '-' ? -1 : 1) * inner(viewport);
    }
    if (token === '(' || token === 'calc(') return list()[0]!;
    if (token === 'min(' || token === 'max(') {
      const values = list();
      const choose = token === 'min(' ? Math.min : Math.max;
      return (viewport) => choose(...values.map((one) => one(viewport)));
    }
    if (token === 'clamp(') {
      const [low, middle, high] = list();
      if (!low || !middle || !high) throw new SyntaxError();
      return (viewport) => Math.max(low(viewport), Math.min(middle(viewport), high(viewport)));
    }
    const [, number, unit = ''] = /^([\d.]+(?:e[+-]?\d+)?)([a-z]*)$/.exec(token) ?? [];
    const scale = units[unit];
    if (number === undefined || !scale) throw new SyntaxError();
    return (viewport) => Number(number) * scale(viewport);
  };
  const product = (): SourceSize => {
    let left = value();
    while (tokens[at] === '*' || tokens[at] === '/') {
      const times = tokens[at++] === '*';
      const [one, other] = [left, value()];
      left = (viewport) =>
        times ? one(viewport) * other(viewport) : one(viewport) / other(viewport);
    }
    return left;
  };
  const sum = (): SourceSize => {
    let left = product();
    while (tokens[at] === '+' || tokens[at] === '-') {
      const plus = tokens[at++] === '+';
      const [one, other] = [left, product()];
      left = (viewport) =>
        plus ? one(viewport) + other(viewport) : one(viewport) - other(viewport);
    }
    return left;
  };
  try {
    const length = sum();
    return at === tokens.length && Number.isFinite(length(1_000)) ? length : undefined;
  } catch {
    return undefined;
  }
}
