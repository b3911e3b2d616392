import { addressMatcher } from '../address/address-matcher.js';
import { addressPattern } from '../address/address-pattern.js';
import { likenessAmong } from './document-sketch.js';
import type { Likeness, SketchedPage } from './document-sketch.js';
import { groupNames } from './group-names.js';
import { joinedGroups } from './joined-groups.js';

/** A group named by a person, and the addresses in it. */
export interface NamedGroup {
  readonly name: string;
  readonly pages: readonly string[];
}

/**
 * Documents of one template are at least this much alike. Where the addresses are of one shape, or the template calls itself
 * the same, less is enough, and the frame around the texts may tell: what editors put between the paragraphs of a page makes
 * no template.
 */
const least = { alone: 0.8, withAddress: 0.5, frameWithAddress: 0.6, frameWithMarks: 0.8 } as const;

/** Against more groups than this a page is not held. */
const maxGroups = 500;

interface Group {
  readonly first: SketchedPage;
  readonly shapes: Set<string>;
  readonly pages: SketchedPage[];
}

/**
 * Finds the pages that were made by one template: first those that a person has named, then those whose documents are alike,
 * judged more mildly where their addresses are of one shape or their bodies have the same classes, at last those of one folder with
 * one skeleton.
 *
 * @returns the group's name by the page's address: what a person called it, else what `groupNames` finds
 */
export function groupPages(
  pages: readonly SketchedPage[],
  named: readonly NamedGroup[] = [],
): Map<string, string> {
  const names = new Map<string, string>();
  const rest: SketchedPage[] = [];
  const nameOf = namedGroups(named);
  for (const page of pages) {
    const name = nameOf(page.url);
    if (name === undefined) rest.push(page);
    else names.set(page.url, name);
  }
  const groups = joinedGroups(clusters(rest));
  const found = groupNames(groups, new Set(named.map(({ name }) => name)));
  groups.forEach((group, at) => {
    for (const { url } of group) names.set(url, found[at]!);
  });
  return names;
}

/** The name that a person gave to the group of an address; `undefined` for none. */
export function namedGroups(named: readonly NamedGroup[]): (url: string) => string | undefined {
  const rules = named.map(({ name, pages }) => ({ name, means: pages.map(addressMatcher) }));
  return (url) => rules.find(({ means }) => means.some((matches) => matches(url)))?.name;
}

function clusters(pages: readonly SketchedPage[]): SketchedPage[][] {
  const alike = {
    full: likenessAmong(pages.map(({ sketch }) => sketch.full)),
    frame: likenessAmong(pages.map(({ sketch }) => sketch.frame)),
  };
  const groups: Group[] = [];
  const bySketch = new Map<string, Group>();
  for (const page of pages) {
    const shape = addressPattern(page.url);
    const sketch = page.sketch.full.join();
    const twin = page.sketch.full.length > 0 ? bySketch.get(sketch) : undefined;
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
  return groups.map((group) => group.pages);
}

function nearestGroup(
  page: SketchedPage,
  shape: string,
  groups: readonly Group[],
  alike: Readonly<Record<'full' | 'frame', Likeness>>,
): Group | undefined {
  let best: Group | undefined;
  let most = 0;
  const marks = page.sketch.marks.join(' ');
  for (const group of groups.slice(0, maxGroups)) {
    const { sketch } = group.first;
    const full = alike.full(page.sketch.full, sketch.full);
    if (full <= most) continue;
    const frame = alike.frame(page.sketch.frame, sketch.frame);
    const sameMarks = marks !== '' && marks === sketch.marks.join(' ');
    const isOne =
      full >= least.alone ||
      (group.shapes.has(shape) && (full >= least.withAddress || frame >= least.frameWithAddress)) ||
      (sameMarks && frame >= least.frameWithMarks);
    if (isOne) [best, most] = [group, full];
  }
  return best;
}
