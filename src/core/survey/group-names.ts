import { pathOf } from '../address/address.js';
import { freeName } from '../base/free-name.js';
import type { DocumentSketch, SketchedPage } from './document-sketch.js';
import { folderOf } from './joined-groups.js';

/**
 * Names groups of pages by what their pages have in common that no other page has: the pattern of their addresses, else a
 * class of their bodies, a breadcrumb, their heading, else their best-known page. What a group is called depends on its own pages, and on others only as
 * far as these have the same: it stays the same from survey to survey.
 *
 * @param groups each of at least one page, the best-known page first
 * @param taken names that are given already
 * @returns a name for each
 */
export function groupNames(
  groups: readonly (readonly SketchedPage[])[],
  taken: ReadonlySet<string>,
): string[] {
  const names = new Set(taken);
  // A single page is called by its own address, which nobody takes for a pattern.
  const several = groups.filter(({ length }) => length > 1);
  const all = several.flat();
  // Pages of several folders are called by none of them.
  const foldered = new Set(several.filter((pages) => folderOf(pages) !== undefined).flat());
  return groups.map((pages) => {
    const name = freeName(
      ownName(pages, all, foldered),
      (one) => names.has(one),
      (one, number) => `${one} (${number})`,
    );
    names.add(name);
    return name;
  });
}

function ownName(
  pages: readonly SketchedPage[],
  all: readonly SketchedPage[],
  foldered: ReadonlySet<SketchedPage>,
): string {
  const [first] = pages as [SketchedPage];
  const path = pathOf(first.url);
  if (pages.length === 1) return path;
  const members = new Set(pages.map(({ url }) => url));
  const others = all.filter(({ url }) => !members.has(url));
  const pattern = commonPattern([...members]);
  const matches = fits(pattern);
  const rivals = foldered.has(first) ? others.filter((page) => foldered.has(page)) : others;
  if (pattern !== '/*' && !rivals.some(({ url }) => matches(url))) return pattern;
  const own = (wordsOf: (sketch: DocumentSketch) => readonly string[]) =>
    wordsOf(first.sketch)
      .filter((word) => pages.every(({ sketch }) => wordsOf(sketch).includes(word)))
      .filter((word) => !others.some(({ sketch }) => wordsOf(sketch).includes(word)));
  // The longest says the most.
  const mark = own(({ marks }) => marks).toSorted(
    (a, b) => b.length - a.length || (a < b ? -1 : 1),
  )[0];
  if (mark !== undefined) return `pages with class ${mark}`;
  // The last is the nearest to the pages.
  const crumb = own(({ trail }) => trail).at(-1);
  if (crumb !== undefined) return `pages under ${crumb}`;
  const [heading] = own(({ heading }) => (heading === '' ? [] : [heading]));
  if (heading !== undefined) return `pages headed ${heading}`;
  return others.some(({ url }) => matches(url)) ? `pages like ${path}` : pattern;
}

/** Whether an address has a pattern: `*` stands for something, at the end for any number of segments. */
function fits(pattern: string): (url: string) => boolean {
  const text = pattern
    .split('*')
    .map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('[^/]+')
    .replace(/\[\^\/\]\+$/, '.+');
  const whole = new RegExp(`^${text}$`);
  return (url) => whole.test(pathOf(url));
}

/** The common pattern of addresses, segment by segment, then key by key of the query; a single one is its own path. */
export function commonPattern(urls: readonly string[]): string {
  const addresses = urls.map((url) => new URL(url));
  const paths = addresses.map(({ pathname, search }) => pathname + search);
  if (new Set(paths).size === 1) return paths[0]!;
  const query = commonQuery(addresses);
  const split = addresses.map(({ pathname }) => pathname.split('/').slice(1));
  const length = split[0]!.length;
  const common = (index: number) => {
    const segments = new Set(split.map((segments) => segments[index]));
    return segments.size === 1 ? split[0]![index]! : '*';
  };
  if (split.every((segments) => segments.length === length))
    return `/${Array.from({ length }, (_, index) => common(index)).join('/')}${query}`;
  let shared = 0;
  while (common(shared) !== '*' && split.every((segments) => segments.length > shared + 1))
    shared++;
  return `/${split[0]!.slice(0, shared).join('/')}${shared > 0 ? '/' : ''}*`;
}

/** `?p=*` where all have the key; `?*` where some have others. */
function commonQuery(addresses: readonly URL[]): string {
  const keys = new Set(addresses.map(({ searchParams }) => [...searchParams.keys()].join('&')));
  const [first = ''] = keys;
  if (keys.size > 1) return addresses.every(({ search }) => search !== '') ? '?*' : '*';
  if (first === '') return '';
  const parts = first.split('&').map((key) => {
    const values = new Set(addresses.map(({ searchParams }) => searchParams.get(key)));
    return `${key}=${values.size === 1 ? [...values][0]! : '*'}`;
  });
  return `?${parts.join('&')}`;
}
