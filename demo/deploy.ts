import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { load } from 'cheerio';
import type { CheerioAPI } from 'cheerio';
import { parse } from 'csv-parse/sync';

/** A file that a deployed refit serves. */
export interface DeployedFile {
  readonly path: string;
  readonly mediaType: string;
}

/** The site after a refit: what its pages and style sheets say then, and the new files. */
export interface Deployment {
  /** The document of a page, by its address. */
  page(url: string, html: string): string;
  /** A style sheet or a script. */
  text(text: string): string;
  /** The new file at an address. */
  file(url: string): DeployedFile | undefined;
  /** Whether the server is to compress what lies at an address. */
  isCompressed(url: string): boolean;
}

interface Rewrite {
  readonly from: string;
  readonly to: string;
  readonly files: readonly { readonly path: string; readonly mediaType: string }[];
}

interface Snippet {
  readonly url: string;
  readonly places: readonly { readonly page: string; readonly selector: string }[];
  readonly language: 'html' | 'css';
  readonly text: string;
}

/**
 * Reads what a refit hands over (its files, snippets, map of addresses and work list), and does with the site what a
 * developer would.
 *
 * @param origin of the site, with `/` at its end
 */
export async function readDeployment(folder: string, origin: string): Promise<Deployment> {
  const json = async <Document>(name: string) =>
    JSON.parse(await readFile(join(folder, name), 'utf8')) as Document;
  const { rewrites } = await json<{ rewrites: readonly Rewrite[] }>('rewrites.json');
  const { rules, snippets } = await json<{ rules: string; snippets: readonly Snippet[] }>(
    'snippets.json',
  );
  const worklist = parse<{
    readonly who: string;
    readonly what: string;
    readonly image: string;
  }>(await readFile(join(folder, 'worklist.csv')), { columns: true });
  const compressed = new Set(
    worklist
      .filter(({ who, what }) => who === 'server' && /compressed/.test(what))
      .map(({ image }) => image),
  );
  const files = new Map(
    rewrites.flatMap((rewrite) =>
      rewrite.files.map(({ path, mediaType }) => [
        origin + path,
        { path: join(folder, path), mediaType },
      ]),
    ),
  );
  const paths = rewrites.map(({ from, to }) => [new URL(from).pathname, `/${to}`] as const);
  const moved = mover(paths);
  const styles = new Map(
    snippets
      .filter(({ language }) => language === 'css')
      .map(({ url, text }) => [new URL(url).pathname, text]),
  );
  const text = (whole: string) => moved(styled(whole, styles));
  return {
    text,
    page: remembered((url, html) => {
      const $ = load(text(html));
      mendTypes($, files, origin);
      const due = snippets.filter(({ language }) => language === 'html');
      pasteAll($, url, due);
      $('head').prepend(`<style>${rules}</style>`);
      return $.html();
    }),
    file: (url) => files.get(url),
    isCompressed: (url) => {
      const successor = rewrites.find(({ to }) => origin + to === url);
      return compressed.has(url) || (successor !== undefined && compressed.has(successor.from));
    },
  };
}

/** A page is mended once, and served as fast as before from then on. */
function remembered(mend: Deployment['page']): Deployment['page'] {
  const known = new Map<string, string>();
  return (url, html) => {
    const key = `${url}\n${html}`;
    const page = known.get(key) ?? mend(url, html);
    known.set(key, page);
    return page;
  };
}

/** Puts new addresses in place of the old ones, wherever they stand in a text; links go on to lead to the originals. */
function mover(paths: readonly (readonly [string, string])[]): (text: string) => string {
  const fresh = new Map(paths);
  return (text) =>
    text.replace(
      /<a\b[^>]*>|\/(?:img|media|museum)\/[\w./-]+\.\w+/g,
      (found) => fresh.get(found) ?? found,
    );
}

/** Backgrounds as the snippets say them; a choice by density is left as it is. */
function styled(css: string, styles: ReadonlyMap<string, string>): string {
  return css.replace(/background(?:-image)?:[^;}]*/g, (declaration) =>
    declaration.includes('image-set(')
      ? declaration
      : declaration.replace(
          /url\(([^)"']+)\)/g,
          (whole, path: string) => styles.get(path) ?? whole,
        ),
  );
}

/** Elements that name the type of their picture name the new one. */
function mendTypes($: CheerioAPI, files: ReadonlyMap<string, DeployedFile>, origin: string): void {
  for (const element of $('object[type], embed[type]').toArray()) {
    const path = $(element).attr('data') ?? $(element).attr('src') ?? '';
    const file = files.get(origin + path.slice(1));
    if (file) $(element).attr('type', file.mediaType);
  }
}

/** Pastes every snippet for a page. All places are found first: what is pasted moves the places of its neighbours. */
function pasteAll($: CheerioAPI, url: string, snippets: readonly Snippet[]): void {
  const found = snippets.flatMap(({ places, text }) =>
    places
      .filter(({ page, selector }) => page === url && !selector.includes('>>>'))
      .map(({ selector }) => ({ element: $(selector).first(), text })),
  );
  for (const { element, text } of found) {
    if (!element.is('img')) continue;
    const whole = element.parent('picture');
    (whole.length > 0 ? whole : element).replaceWith(text);
  }
}
