import slugify from '@sindresorhus/slugify';
import { freeName } from '../../core/base/free-name.js';
import { UsageError, messageOf } from '../../core/base/errors.js';
import { ownFolders } from '../../core/refit/refit-job.js';
import { largestSide, pagesNamed, sheetCandidates } from '../../core/refit/sheet-candidates.js';
import type { SheetImage } from '../../core/refit/sheet-candidates.js';
import { sheetCss, sheetHtml } from '../../output/html/sheet.js';
import type { Sheet, SheetPicture } from '../../output/html/sheet.js';
import { sheetDocument } from '../../output/json/sheet.js';
import type { ReadBody } from './make-files.js';
import type { RankResult } from '../rank.js';

/** A sheet and its saving. */
export interface MadeSheet {
  /** Path of its style sheet. */
  readonly path: string;
  readonly pages: number;
  readonly images: number;
  /** Of the images that it joins, and of the sheet that most visitors download. */
  readonly bytes: { readonly before: number; readonly after: number };
}

export interface MadeSheets {
  readonly sheets: readonly MadeSheet[];
  readonly files: ReadonlyMap<string, string | Buffer>;
}

/**
 * Joins the small images of page groups, or of pages, into one sheet each, at the densities 1 and 2.
 *
 * @param names page groups or addresses of pages, with `*` for any characters
 * @throws UsageError where a name means no page, or pages without two small images.
 */
export async function makeSheets(
  { images, pages }: Pick<RankResult, 'images' | 'pages'>,
  names: readonly string[],
  read: ReadBody,
): Promise<MadeSheets> {
  const files = new Map<string, string | Buffer>();
  const sheets: MadeSheet[] = [];
  for (const name of names) {
    const named = pagesNamed(name, pages);
    if (named.length === 0)
      throw new UsageError(`--sheet ${name}: the survey has no such page group or page`, {
        hint: 'zealous-lynx rank --by group lists the groups',
      });
    const found = sheetCandidates(images, named);
    if (found.length < 2)
      throw new UsageError(
        `--sheet ${name}: ${found.length === 1 ? 'only one image is' : 'no images are'} small enough to be joined`,
        { hint: `images up to ${largestSide} px wide and high are joined` },
      );
    sheets.push(await makeSheet(name, named.length, found, read, files));
  }
  return { sheets, files };
}

async function makeSheet(
  name: string,
  pages: number,
  found: readonly SheetImage[],
  read: ReadBody,
  files: Map<string, string | Buffer>,
): Promise<MadeSheet> {
  const { drawSheet, packSheet } = await import('../../images/sheet.js');
  const stem = freeName(slugify(name) || 'front', (one) =>
    files.has(`${ownFolders.sheets}${one}.css`),
  );
  const layout = pack();
  const bodies = await Promise.all(found.map(({ image }) => read(image.file.contentHash)));
  const drawn: { path: string; mediaType: string }[] = [];
  let smallest = Infinity;
  for (const density of [1, 2]) {
    const path = `${ownFolders.sheets}${stem}${density === 2 ? '@2x' : ''}`;
    const { png, webp } = await drawSheet(bodies, layout, density);
    for (const [format, body] of Object.entries({ png, webp })) {
      files.set(`${path}.${format}`, body);
      drawn.push({ path: `${path}.${format}`, mediaType: `image/${format}` });
    }
    smallest = Math.min(smallest, webp.length);
  }
  const taken = new Set<string>();
  const entries = found.map(({ image, alt, places }, at): SheetPicture => {
    const file = new URL(image.url).pathname
      .split('/')
      .at(-1)!
      .replace(/\.\w+$/, '');
    const own = freeName(`${stem}-${slugify(file) || 'picture'}`, (one) => taken.has(one));
    taken.add(own);
    return { name: own, place: layout.places[at]!, alt, url: image.url, places };
  });
  const sheet: Sheet = { name: stem, size: layout, entries };
  const path = `${ownFolders.sheets}${stem}.css`;
  files.set(path, sheetCss(sheet));
  files.set(`${ownFolders.sheets}${stem}.html`, sheetHtml(sheet));
  const document = JSON.stringify(sheetDocument(sheet, path, drawn), null, 2);
  files.set(`${ownFolders.sheets}${stem}.json`, `${document}\n`);
  const before = found.reduce((sum, { image }) => sum + image.file.bytes, 0);
  return { path, pages, images: found.length, bytes: { before, after: smallest } };

  function pack() {
    try {
      return packSheet(found.map(({ size }) => size));
    } catch (error) {
      throw new UsageError(`--sheet ${name}: ${messageOf(error)}`, {
        hint: 'name fewer pages',
        cause: error,
      });
    }
  }
}
