import { childrenOf, classListOf, localNameOf, parentElementOf } from './element.js';
import { sketchSize } from '../../core/survey/document-sketch.js';
import type { DocumentSketch } from '../../core/survey/document-sketch.js';

/** The most elements that are examined; a template shows long before that. */
const maxElements = 5_000;

/** How many elements up the tree tell one place in a document from another. */
const reach = 3;

/** How many elements below the body the skeleton of a document reaches. */
const depth = 4;

/** The most classes of a body that are kept. */
const maxMarks = 20;

/** Elements that stand among the paragraphs of a text. */
const proseNames = new Set(
  'p h1 h2 h3 h4 h5 h6 ul ol dl blockquote figure pre table hr img picture video iframe'.split(' '),
);

/**
 * A sketch of how the document's elements are nested: the smallest hashes of all paths of names and
 * classes in it, each once. How often something is repeated does not change it.
 */
export function shapeOf(): DocumentSketch {
  const hashes = new Set<number>();
  const framing = new Set<number>();
  const skeleton = new Set<number>();
  const labels = new Map<Element, string>();
  const labelOf = (element: Element) => {
    let label = labels.get(element);
    if (label === undefined) labels.set(element, (label = labelled(element)));
    return label;
  };
  const inText = within(isText);
  const inColumn = within(isColumn);
  let left = maxElements;
  for (const element of document.body?.querySelectorAll('*') ?? []) {
    if (left-- <= 0) break;
    const above = outwards(element);
    const path = above.slice(0, reach + 1).map(labelOf);
    const hash = hashOf(path.join('<'));
    hashes.add(hash);
    if (!inText(element)) framing.add(hash);
    const below = above.indexOf(document.body);
    if (!inColumn(element) && below > 0 && below <= depth)
      skeleton.add(hashOf(above.slice(0, below).map(labelOf).join('<')));
  }
  return {
    full: smallest(hashes),
    frame: smallest(framing),
    skeleton: smallest(skeleton),
    marks: marksOf(),
    trail: trailOf(),
    heading: wordsOf(document.querySelector('h1')),
  };
}

/** An element and those around it, as many as matter. */
function outwards(element: Element): Element[] {
  const found: Element[] = [];
  for (let at: Element | null = element; at && found.length <= depth; at = parentElementOf(at))
    found.push(at);
  return found;
}

/** Tells whether an element stands in one that holds something; to be asked for outer elements before inner ones. */
function within(holds: (element: Element) => boolean): (element: Element) => boolean {
  const answers = new Map<Element, boolean>();
  const isWithin = (element: Element): boolean => {
    const parent = parentElementOf(element);
    if (!parent) return false;
    let answer = answers.get(parent);
    if (answer === undefined) answers.set(parent, (answer = isWithin(parent) || holds(parent)));
    return answer;
  };
  return isWithin;
}

function smallest(hashes: ReadonlySet<number>): number[] {
  return [...hashes].sort((a, b) => a - b).slice(0, sketchSize);
}

/** Elements that templates are made of, whatever stands in them. */
const landmarks = new Set('html body main section header footer nav aside form'.split(' '));

/** Whether an element holds a text: paragraphs among its children, and hardly anything but what stands among paragraphs. */
function isText(holder: Element): boolean {
  if (landmarks.has(localNameOf(holder))) return false;
  const elements = [...childrenOf(holder)];
  if (!elements.some((element) => localNameOf(element) === 'p')) return false;
  const prose = elements.filter((element) => proseNames.has(localNameOf(element)));
  return prose.length >= elements.length * 0.75;
}

/** Elements that hold texts and what belongs to them, but are no texts themselves. */
const frames = new Set([...landmarks].filter((name) => name !== 'section'));

/** Whether paragraphs stand in an element, among whatever else: figures, notes and lists of a manual have wrappers of their own. */
function isColumn(holder: Element): boolean {
  if (frames.has(localNameOf(holder))) return false;
  return [...childrenOf(holder)].some((element) => localNameOf(element) === 'p');
}

/** Classes of the body without those that have digits, which tell pages and not templates. */
function marksOf(): string[] {
  const classes = [...(document.body?.classList ?? [])].filter((name) =>
    /^[\w-]{2,60}$/.test(name),
  );
  return classes
    .filter((name) => !/\d/.test(name))
    .slice(0, maxMarks)
    .sort();
}

/** Where breadcrumbs stand, as they are marked up most often. */
const trails =
  'nav[aria-label*="breadcrumb" i], [itemtype$="BreadcrumbList"], [class~="breadcrumb"], [class~="breadcrumbs"]';
const maxTrail = 6;

/** The links of the breadcrumbs: the page itself, which comes last, is usually none. */
function trailOf(): string[] {
  const links = [...(document.querySelector(trails)?.querySelectorAll('a[href]') ?? [])];
  return links
    .slice(0, maxTrail)
    .map(wordsOf)
    .filter((words) => words !== '');
}

const maxWords = 60;

/** The beginning of the text in an element, on one line. */
function wordsOf(element: Element | null): string {
  const text = element?.textContent?.slice(0, 20 * maxWords) ?? '';
  return text.replace(/\s+/g, ' ').trim().slice(0, maxWords).trim();
}

/** Name and classes, without classes that have digits: those are generated and differ on every page. */
function labelled(element: Element): string {
  const classes = [...classListOf(element)].filter((name) => !/\d/.test(name)).sort();
  return [localNameOf(element), ...classes].join('.').slice(0, 200);
}

/** FNV-1a, 32 bit (Fowler, Noll and Vo). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let index = 0; index < text.length; index++)
    hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193);
  return hash >>> 0;
}
