import { readFileSync } from 'node:fs';
import { NotFoundError, UsageError, messageOf } from '../../core/base/errors.js';
import type { SkippedAddress } from '../../core/survey/survey.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { maxSitemapBytes, parseSitemap } from '../../crawl/sitemap.js';
import type { Robots } from '../../crawl/robots.js';

/** The word for the sitemaps that robots.txt lists. */
export const namedInRobots = 'robots';

/** What sitemaps name. */
export interface Sitemapped {
  readonly pages: readonly string[];
  /** When pages were last changed, as far as they say, by address. */
  readonly modified: ReadonlyMap<string, string>;
  /** What was wrong with them. */
  readonly problems: readonly SkippedAddress[];
}

/** The most sitemaps that are read; an index may name many, and other indexes. */
const maxFiles = 1_000;
const maxDepth = 3;
const maxPages = 1_000_000;

/**
 * Reads sitemaps, and those that indexes name.
 *
 * @param given addresses, files, or `robots` for those that the robots.txt of the starts names
 * @throws NotFoundError, UsageError when one that was given cannot be had or says nothing.
 */
export async function readSitemaps(
  given: readonly string[],
  starts: readonly string[],
  robots: Robots,
  fetch: (url: string) => Promise<FetchedFile>,
): Promise<Sitemapped> {
  const pages = new Set<string>();
  const modified = new Map<string, string>();
  const problems: SkippedAddress[] = [];
  const seen = new Set<string>();
  const read = async (where: string, depth: number): Promise<string | undefined> => {
    if (seen.has(where) || seen.size >= maxFiles) return undefined;
    seen.add(where);
    const body = isAddress(where) ? await fetched(where, fetch) : fileAt(where);
    if (typeof body === 'string') return body;
    const found = parseSitemap(body);
    for (const url of found.pages) if (pages.size < maxPages) pages.add(url);
    for (const [url, at] of found.modified) if (pages.has(url)) modified.set(url, at);
    if (found.pages.length === 0 && found.sitemaps.length === 0) return found.problems[0];
    for (const reason of found.problems) problems.push({ url: where, reason });
    if (depth >= maxDepth) return undefined;
    for (const url of found.sitemaps) {
      const problem = await read(url, depth + 1);
      if (problem !== undefined) problems.push({ url, reason: problem });
    }
    return undefined;
  };
  for (const where of given) {
    const places = where === namedInRobots ? await namedBy(robots, starts) : [where];
    for (const place of places) {
      const problem = await read(place, 0);
      if (problem !== undefined)
        throw new UsageError(`the sitemap ${place} cannot be read: ${problem}`, {
          hint: 'sitemaps are XML (urlset, sitemapindex) or one address a line, also gzipped',
        });
    }
  }
  if (given.length > 0 && pages.size === 0) {
    const reason = problems[0] ? `: ${problems[0].url}: ${problems[0].reason}` : '';
    const words = `${given.join(', ')} ${given.length === 1 ? 'names' : 'name'} no page${reason}`;
    if (starts.length === 0)
      throw new NotFoundError(words, {
        hint: 'give a sitemap with pages, or the address of the site',
      });
    problems.push(...given.map((url) => ({ url, reason: 'a sitemap that names no page' })));
  }
  return { pages: [...pages], modified, problems };
}

/**
 * The addresses that a person vouches for with the sitemaps given: those of the sitemaps, and what stands in files of this
 * machine. What a sitemap of the network names is the network's word.
 *
 * @throws NotFoundError when a file is not there.
 */
export function vouchedFor(given: readonly string[]): string[] {
  return given.flatMap((where) => {
    if (where === namedInRobots) return [];
    if (isAddress(where)) return [where];
    const { pages, sitemaps } = parseSitemap(fileAt(where));
    return [...pages, ...sitemaps];
  });
}

async function namedBy(robots: Robots, starts: readonly string[]): Promise<string[]> {
  if (starts.length === 0)
    throw new UsageError('--sitemap robots needs a site', {
      hint: 'give the address of the site as well',
    });
  const origins = [...new Set(starts.map((url) => new URL(url).origin))];
  const named = (await Promise.all(origins.map((origin) => robots.sitemaps(`${origin}/`)))).flat();
  if (named.length > 0) return named.filter(isAddress);
  throw new NotFoundError(`the robots.txt of ${origins.join(', ')} names no sitemap`, {
    hint: 'give the address of the sitemap, usually /sitemap.xml',
  });
}

/** The body, or in words why there is none. */
async function fetched(
  url: string,
  fetch: (url: string) => Promise<FetchedFile>,
): Promise<Buffer | string> {
  try {
    const { status, body } = await fetch(url);
    if (status < 200 || status >= 300) return `it returned ${status}`;
    return body.length >= maxSitemapBytes ? `it is larger than ${maxSitemapBytes} bytes` : body;
  } catch (error) {
    return messageOf(error);
  }
}

function fileAt(path: string): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new NotFoundError(`there is no sitemap ${path}: ${messageOf(error)}`, {
      hint: 'give a file, an address that begins with http, or robots',
      cause: error,
    });
  }
}

function isAddress(text: string): boolean {
  return /^https?:\/\//i.test(text);
}
