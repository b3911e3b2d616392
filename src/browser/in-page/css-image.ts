import parse from 'postcss-value-parser';
import type { Node } from 'postcss-value-parser';

/** An image that a style names. */
export interface CssImage {
  /** Absolute, as in computed styles. */
  readonly url: string;
  /** Pixels of the file to one CSS pixel of its natural size. */
  readonly density: number;
}

/** The layers of a comma-separated value, as text. */
export function layersOf(value: string): string[] {
  return groups(parse(value).nodes).map((nodes) => parse.stringify(nodes).trim());
}

/** The image of one layer: `url()`, or the candidate of `image-set()` that this screen gets. */
export function imageOf(layer: string): CssImage | undefined {
  const node = parse(layer).nodes.find(({ type }) => type === 'function');
  if (node?.type !== 'function') return undefined;
  if (node.value === 'url') return { url: contentOf(node.nodes), density: 1 };
  if (/^(?:-webkit-)?image-set$/.test(node.value)) return chosenOf(node.nodes);
  return undefined;
}

/** The candidate with the least density that is enough for the screen, else the densest. */
function chosenOf(nodes: readonly Node[]): CssImage | undefined {
  const candidates = groups(nodes)
    .flatMap(candidateOf)
    .sort((a, b) => a.density - b.density);
  return candidates.find(({ density }) => density >= devicePixelRatio) ?? candidates.at(-1);
}

function candidateOf(nodes: readonly Node[]): CssImage[] {
  const named = nodes.find(
    (node) => node.type === 'string' || (node.type === 'function' && node.value === 'url'),
  );
  const type = nodes.find((node) => node.type === 'function' && node.value === 'type');
  if (!named || (type?.type === 'function' && !isReadable(contentOf(type.nodes)))) return [];
  const url = named.type === 'function' ? contentOf(named.nodes) : named.value;
  const word = nodes.find(({ type: kind }) => kind === 'word')?.value ?? '1x';
  const density = Number.parseFloat(word) / (word.endsWith('dpi') ? 96 : 1);
  return [{ url, density: density > 0 ? density : 1 }];
}

/** Formats that current browsers of the family draw. */
function isReadable(mediaType: string): boolean {
  return /^image\/(?:jpeg|png|gif|webp|avif|svg\+xml|bmp|x-icon)$/i.test(mediaType);
}

function contentOf(nodes: readonly Node[]): string {
  const [first] = nodes;
  return first?.type === 'string' || first?.type === 'word' ? first.value : '';
}

/** Nodes between commas. */
function groups(nodes: readonly Node[]): Node[][] {
  const all: Node[][] = [[]];
  for (const node of nodes) {
    if (node.type === 'div' && node.value === ',') all.push([]);
    else if (node.type !== 'space') all.at(-1)!.push(node);
    else if (all.at(-1)!.length > 0) all.at(-1)!.push(node);
  }
  return all.filter((group) => group.length > 0);
}
