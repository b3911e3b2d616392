import { load } from 'cheerio';
import { keptAddress } from '../../../core/address/address.js';
import type { RequestChange, RequestChanges } from '../../../core/load/changed-model.js';
import { parseSizes, wholeViewport } from '../../../core/slots/source-sizes.js';
import { chosenWidth, offeredWidths, parseSrcset } from '../../../core/slots/srcset.js';
import { bare } from '../../../core/trial/moved-placements.js';
import type { RecordedResponse, Recording } from '../../../core/trial/recording.js';
import type { TriedSnippet } from '../refit-to-try.js';
import { addressesOf, editDocuments, resolved } from './fix.js';
import type { Fix, PageLayout } from './fix.js';
import { refitFiles } from './refit-files.js';
import { absentNote, addRules, imageOf } from './snippet-attributes.js';

export const responsive: Fix = {
  name: 'responsive',
  title: 'srcset, sizes and formats of images, as the refit has them',
  unit: 'element',
  isOfBytes: false,
  isUsual: ({ refit }) => refit !== null,
  apply: async (recording, tools) => {
    const { refit } = tools;
    if (!refit)
      return { recording, changed: 0, notes: ['needs a refit: give its folder with --refit'] };
    const { snippets, sheets, rules } = refit;
    // What is joined to a sheet is no image any more.
    const joined = new Set(
      sheets.flatMap(({ elements }) => elements.map(({ page, selector }) => page + selector)),
    );
    let absent = 0;
    const pasted: TriedSnippet[] = [];
    const outcome = await editDocuments(recording, tools, (document, url) => {
      let changed = 0;
      for (const snippet of snippets.filter(({ page }) => page === url)) {
        const { selector, text } = snippet;
        const [element] = document.find(selector);
        const image = imageOf(text);
        if (!image || joined.has(url + selector)) continue;
        if (element?.name !== 'img') {
          absent++;
          continue;
        }
        const before = document.count;
        const [start, end] = aroundImage(text);
        const { parent } = element;
        const inPicture = parent && 'name' in parent && parent.name === 'picture';
        if (inPicture) {
          for (const source of document.find('picture > source'))
            if (source.parent === parent) document.replace(source, '');
          document.surround(element, start.replace(/^\s*<picture[^>]*>/i, ''), '');
        } else if (start !== '') document.surround(element, start, end);
        for (const name of ['src', 'srcset', 'sizes'])
          document.setAttribute(element, name, image[name] ?? null);
        if (document.count === before) continue;
        changed++;
        pasted.push(snippet);
      }
      if (changed > 0) addRules(document, rules);
      return changed;
    });
    // The markup names files that lie beside the originals.
    const named = new Set(pasted.flatMap(namedIn));
    const { added } = await refitFiles(recording, refit, tools.keep, named);
    const there = new Set(recording.responses.map(({ request }) => request.url));
    const beside = added.filter(({ request }) => !there.has(request.url));
    const fixed: Recording = {
      ...outcome.recording,
      responses: [...outcome.recording.responses, ...beside],
    };
    return {
      recording: outcome.changed > 0 ? fixed : recording,
      changed: outcome.changed,
      notes: absentNote(absent),
      requests: (layout) => chosenFiles(pasted, layout, fixed),
    };
  },
};

/** The addresses that the markup of a snippet names. */
function namedIn({ page, text }: TriedSnippet): string[] {
  return load(
    text,
    {},
    false,
  )('source, img')
    .toArray()
    .flatMap((element) => [...addressesOf(element, page)]);
}

/** What a snippet has ahead of its `<img>`, and behind it. */
function aroundImage(text: string): [start: string, end: string] {
  const from = text.search(/<img\b/i);
  const close = /<\/picture>\s*$/i.exec(text);
  return from > 0 && close ? [text.slice(0, from), close[0]] : ['', ''];
}

/** What the browser is sent in place of the pictures that it showed before. */
function chosenFiles(
  pasted: readonly TriedSnippet[],
  { placements, view }: PageLayout,
  { responses }: Recording,
): RequestChanges {
  const files = new Map(responses.map((response) => [response.request.url, response]));
  const shown = new Map(placements.map((placement) => [bare(placement.selector), placement]));
  const changes = new Map<string, RequestChange>();
  for (const { page, selector, text } of pasted) {
    const before = shown.get(bare(selector));
    const chosen = files.get(chosenIn(text, page, view));
    const original = before && files.get(before.url);
    if (!original || !chosen) continue;
    const bytes = bytesInstead(original, chosen);
    // One file may be shown by several elements: the largest of what they choose comes nearest.
    if (bytes > (changes.get(before.url)?.bytes ?? 0)) changes.set(before.url, { bytes });
  }
  return changes;
}

/** On the wire, headers included. */
function bytesInstead({ request, wireBytes }: RecordedResponse, other: RecordedResponse): number {
  return Math.max(0, request.transferBytes - wireBytes + other.wireBytes);
}

/** The address that a browser takes from the markup of an image; one that reads every format. */
function chosenIn(text: string, page: string, { width, density }: PageLayout['view']): string {
  const $ = load(text, {}, false);
  const [first] = $('source[srcset], img').toArray();
  const { srcset = '', src = '', sizes } = first?.attribs ?? {};
  const candidates = parseSrcset(srcset);
  const needed = ((sizes && parseSizes(sizes)) || wholeViewport)(width, density) * density;
  const chosen = chosenWidth(offeredWidths(candidates), needed);
  const dense = candidates.filter((one) => one.density !== null);
  const fitting =
    chosen === undefined
      ? (dense.find((one) => one.density! >= density) ?? dense.at(-1))
      : candidates.find((one) => one.width === chosen);
  const url = fitting?.url ?? src;
  return keptAddress(resolved(url, page));
}
