import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { UsageError } from '../../core/base/errors.js';
import { hostOf } from '../../core/address/address.js';
import { listOf, textOf, untrustedObject } from '../../core/base/untrusted.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import { contentHashOf } from '../../images/hash.js';
import { refitPaper } from '../refit/refit-paper.js';

/** A file of a refit. */
export interface TriedFile {
  /** Below the refit's folder, with `/`. */
  readonly path: string;
  readonly mediaType: string;
}

/** The files that take the place of an original. */
export interface TriedRewrite {
  readonly from: string;
  /** The path of the one that is served at the address of the original. */
  readonly to: string;
  readonly files: readonly TriedFile[];
}

/** An element that a refit has new markup for. */
export interface TriedSnippet {
  readonly page: string;
  readonly selector: string;
  readonly text: string;
}

/** Small images that are joined to one. */
export interface TriedSheet {
  /** Path of its style sheet. */
  readonly style: string;
  /** What the style sheet names. */
  readonly files: readonly TriedFile[];
  /** Elements, and what takes their place. */
  readonly elements: readonly TriedSnippet[];
}

/** A refit as its folder hands it over. */
export interface RefitToTry {
  readonly folder: string;
  readonly rewrites: readonly TriedRewrite[];
  readonly snippets: readonly TriedSnippet[];
  readonly sheets: readonly TriedSheet[];
  /** Styles that go with the snippets. */
  readonly rules: string;
  /** Content hashes of the originals, by address. */
  readonly originals: ReadonlyMap<string, string>;
  /** The content hash of a file that the refit wrote; `undefined` for any other. */
  readonly hashOf: (path: string) => string | undefined;
  /** @throws UsageError when the file is not the one that was written. */
  readonly read: (path: string) => Promise<Buffer>;
  /** The address on the site of a file, by that of its original. */
  readonly addressOf: (path: string, original: string) => string;
}

/**
 * Reads the folder of a refit.
 *
 * @throws NotFoundError, UsageError when it is none.
 */
export async function readRefit(folder: string): Promise<RefitToTry> {
  const manifest = await refitPaper(folder, refitPapers.manifest, 'zealous-lynx.refit/1');
  const rewritten = await refitPaper(folder, refitPapers.rewrites, 'zealous-lynx.rewrites/1');
  const papers = listOf(manifest['papers']).map((paper) => textOf(untrustedObject(paper)['path']));
  const marked = papers.includes(refitPapers.snippetsJson)
    ? await refitPaper(folder, refitPapers.snippetsJson, 'zealous-lynx.snippets/1')
    : {};
  const filesIn = (list: string) => listOf(manifest[list]).map(untrustedObject);
  const made = ['files', 'variants'].flatMap(filesIn);
  const joined = filesIn('sheets');
  const hashes = new Map(
    [...made, ...joined].map((file) => [textOf(file['path']), textOf(file['resultHash'])]),
  );
  const sheets: TriedSheet[] = [];
  for (const path of joined.map((file) => textOf(file['path'])))
    if (path.endsWith('.json'))
      sheets.push(sheetOf(await refitPaper(folder, path, 'zealous-lynx.sheet/1')));
  const originals = new Map(
    made.flatMap((file) =>
      listOf(file['originals']).map((url) => [textOf(url), textOf(file['contentHash'])] as const),
    ),
  );
  const hosts = new Set([...originals.keys()].map(hostOf));
  return {
    ...{ folder, originals, sheets, rules: longText(marked['rules']) },
    rewrites: listOf(rewritten['rewrites']).map(untrustedObject).map(rewriteOf),
    snippets: listOf(marked['snippets']).map(untrustedObject).flatMap(snippetsOf),
    hashOf: (path) => hashes.get(path),
    read: async (path) => {
      const expected = hashes.get(path);
      if (expected === undefined)
        throw new UsageError(`${path} is not a file of the refit ${folder}`, {
          hint: 'run refit again',
        });
      const body = await readFile(join(folder, ...path.split('/')));
      if (contentHashOf(body) !== expected)
        throw new UsageError(`${join(folder, path)} has changed since the refit was written`, {
          hint: 'run refit again, or give files made by hand with --files',
        });
      return body;
    },
    addressOf: (path, original) => {
      const below = `${hostOf(original).replace(/[^\w.-]/g, '_')}/`;
      const own = hosts.size > 1 && path.startsWith(below) ? path.slice(below.length) : path;
      return new URL(`/${own}`, original).href;
    },
  };
}

function rewriteOf(rewrite: ReturnType<typeof untrustedObject>): TriedRewrite {
  return {
    from: textOf(rewrite['from']),
    to: textOf(rewrite['to']),
    files: filesOf(rewrite),
  };
}

function filesOf(listed: ReturnType<typeof untrustedObject>): TriedFile[] {
  return listOf(listed['files'])
    .map(untrustedObject)
    .map((file) => ({ path: textOf(file['path']), mediaType: textOf(file['mediaType']) }));
}

function sheetOf(sheet: ReturnType<typeof untrustedObject>): TriedSheet {
  return {
    style: textOf(sheet['style']),
    files: filesOf(sheet),
    elements: listOf(sheet['pictures']).map(untrustedObject).flatMap(placesOf),
  };
}

function snippetsOf(snippet: ReturnType<typeof untrustedObject>): TriedSnippet[] {
  return snippet['language'] === 'html' ? placesOf(snippet) : [];
}

/** The elements that a text is for. */
function placesOf(snippet: ReturnType<typeof untrustedObject>): TriedSnippet[] {
  return listOf(snippet['places'])
    .map(untrustedObject)
    .map((place) => ({
      page: textOf(place['page']),
      selector: textOf(place['selector']),
      text: longText(snippet['text']),
    }));
}

/** A text of our own papers, which may be longer than texts from outside. */
function longText(value: unknown): string {
  return typeof value === 'string' ? value : '';
}
