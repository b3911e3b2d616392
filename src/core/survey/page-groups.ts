import { addressPattern } from '../address/address-pattern.js';
import { freeName } from '../base/free-name.js';
import { addressMatcher } from '../address/address-matcher.js';

/** A group named by a person, and the addresses in it. */
export interface NamedGroup {
  readonly name: string;
  readonly pages: readonly string[];
}

/** A page with its sketch. */
export interface SketchedPage {
  readonly url: string;
  /** Hashes of how its elements are nested, as the probe sketches them; empty when it was not seen. */
  readonly sketch: readonly number[];
}

/** The most hashes in a sketch. */
export const sketchSize = 128;

/** Pages whose addresses are of one shape are of one template when their documents are this alike. */
const alikeWithAddress = 0.5;
/** Pages whose addresses say nothing of it must be alike this much. */
const alikeWithout = 0.8;

/** Against more groups than this a page is not held. */
const maxGroups = 500;

interface Group {
  readonly first: SketchedPage;
  readonly shapes: Set<string>;
  readonly pages: SketchedPage[];
}

/**
 * Finds the pages that were made by one template: first those that a person has named, then those whose
 * documents are alike, judged more mildly where their addresses are of one shape.
 *
 * How alike two documents are is the Jaccard coefficient of their sketches (Broder 1997: of the smallest
 * hashes of both together, the part that both have), each hash weighted by how few pages have it, so
 * that the frame which all pages of a site share does not make them one.
 *
 * @returns the group's name by the page's address: what a person called it, else what its addresses have
 *   in common, with `*` for the rest
 */
export function groupPages(
  pages: readonly SketchedPage[],
  named: readonly NamedGroup[] = [],
): Map<string, string> {
  const names = new Map<string, string>();
  const rest: SketchedPage[] = [];
  const rules = named.map(({ name, pages: patterns }) => ({
    name,
    means: patterns.map(addressMatcher),
  }));
  for (const page of pages) {
    const rule = rules.find(({ means }) => means.some((matches) => matches(page.url)));
    if (rule) names.set(page.url, rule.name);
    else rest.push(page);
  }
  const taken = new Set(named.map(({ name }) => name));
  for (const group of clusters(rest)) {
    const pattern = commonPattern(group.pages.map(({ url }) => url));
    const name = freeName(
      pattern,
      (one) => taken.has(one),
      (one, number) => `${one} (${number})`,
    );
    taken.add(name);
    for (const { url } of group.pages) names.set(url, name);
  }
  return names;
}

function clusters(pages: readonly SketchedPage[]): Group[] {
  const alike = likeness(pages);
  const groups: Group[] = [];
  const bySketch = new Map<string, Group>();
  for (const page of pages) {
    const shape = addressPattern(page.url);
    const sketch = page.sketch.join();
    const twin = page.sketch.length > 0 ? bySketch.get(sketch) : undefined;
    const group = twin ?? nearestGroup(page, shape, groups, alike);
    if (group) {
      group.pages.push(page);
      group.shapes.add(shape);
      continue;
    }
    const made: Group = { first: page, shapes: new Set([shape]), pages: [page] };
    groups.push(made);
    bySketch.set(sketch, made);
  }
  return groups;
}

type Likeness = (one: SketchedPage, other: SketchedPage) => number;

function nearestGroup(
  page: SketchedPage,
  shape: string,
  groups: readonly Group[],
  alike: Likeness,
): Group | undefined {
  let best: Group | undefined;
  let most = 0;
  for (const group of groups.slice(0, maxGroups)) {
    const likely = alike(page, group.first);
    const least = group.shapes.has(shape) ? alikeWithAddress : alikeWithout;
    if (likely >= least && likely > most) {
      best = group;
      most = likely;
    }
  }
  return best;
}

/** The weighted Jaccard coefficient of sketches; pages that were not seen are like none. */
function likeness(pages: readonly SketchedPage[]): Likeness {
  const pagesWith = new Map<number, number>();
  for (const { sketch: shape } of pages)
    for (const hash of shape) pagesWith.set(hash, (pagesWith.get(hash) ?? 0) + 1);
  const weight = (hash: number) => Math.log(1 + pages.length / (pagesWith.get(hash) ?? 1));
  return (one, other) => {
    if (one.sketch.length === 0 || other.sketch.length === 0) return 0;
    const [mine, theirs] = [new Set(one.sketch), new Set(other.sketch)];
    const all = [...new Set([...mine, ...theirs])];
    // A full sketch was cut: beyond the smallest hashes of both together it says nothing.
    if (Math.max(mine.size, theirs.size) >= sketchSize) {
      all.sort((a, b) => a - b);
      all.length = Math.min(all.length, sketchSize);
    }
    let both = 0;
    let either = 0;
    for (const hash of all) {
      either += weight(hash);
      if (mine.has(hash) && theirs.has(hash)) both += weight(hash);
    }
    return both / either;
  };
}

/** The common pattern of addresses, segment by segment; a single one is its own path. */
export function commonPattern(urls: readonly string[]): string {
  const paths = urls.map((url) => {
    const { pathname, search } = new URL(url);
    return pathname + search;
  });
  if (new Set(paths).size === 1) return paths[0]!;
  const split = paths.map((path) => path.split('?', 1)[0]!.split('/').slice(1));
  const length = split[0]!.length;
  const common = (index: number) => {
    const segments = new Set(split.map((segments) => segments[index]));
    return segments.size === 1 ? split[0]![index]! : '*';
  };
  if (split.every((segments) => segments.length === length)) {
    const pattern = `/${Array.from({ length }, (_, index) => common(index)).join('/')}`;
    return paths.some((path) => path.includes('?')) ? `${pattern}?*` : pattern;
  }
  let shared = 0;
  while (common(shared) !== '*' && split.every((segments) => segments.length > shared + 1))
    shared++;
  return `/${split[0]!.slice(0, shared).join('/')}${shared > 0 ? '/' : ''}*`;
}
