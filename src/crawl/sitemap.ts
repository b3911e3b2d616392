import { gunzipSync } from 'node:zlib';
import { SaxesParser } from 'saxes';
import { pageAddress } from '../core/address/address.js';

/** The content of a sitemap file: pages, or other sitemaps if it is an index. */
export interface Sitemap {
  readonly pages: readonly string[];
  /** When pages were last changed, as far as it says: W3C date and time, by address. */
  readonly modified: ReadonlyMap<string, string>;
  readonly sitemaps: readonly string[];
  /** What was wrong with it, with line numbers; the rest is used. */
  readonly problems: readonly string[];
}

/** The most addresses in one sitemap, and its most bytes uncompressed (sitemaps.org, protocol). */
const maxAddresses = 50_000;
export const maxSitemapBytes = 50 * 1024 * 1024;

/** The most problems that are told of one sitemap. */
const maxProblems = 20;

/**
 * Reads a sitemap by the protocol of sitemaps.org: a `urlset` or a `sitemapindex` in XML, or a text
 * with one address a line; any of them compressed with gzip.
 *
 * @param body the file, cut at `maxSitemapBytes`
 */
export function parseSitemap(body: Buffer): Sitemap {
  let text: string;
  try {
    text = unzipped(body)
      .toString('utf8')
      .replace(/^\uFEFF/, '');
  } catch (error) {
    const isLarge = (error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE';
    const reason = isLarge
      ? `unzipped it is larger than ${maxSitemapBytes >> 20} MiB`
      : 'it cannot be unzipped';
    return { pages: [], modified: new Map(), sitemaps: [], problems: [reason] };
  }
  return text.trimStart().startsWith('<') ? parseXml(text) : parseText(text);
}

function unzipped(body: Buffer): Buffer {
  const zipped = body[0] === 0x1f && body[1] === 0x8b;
  return zipped ? gunzipSync(body, { maxOutputLength: maxSitemapBytes }) : body;
}

function parseXml(text: string): Sitemap {
  const pages: string[] = [];
  const modified = new Map<string, string>();
  let changed: string | undefined;
  let page: string | undefined;
  const sitemaps: string[] = [];
  const problems: string[] = [];
  const path: string[] = [];
  let content = '';
  let broken = false;
  const parser = new SaxesParser();
  const tell = (problem: string) => {
    if (problems.length < maxProblems) problems.push(`line ${parser.line}: ${problem}`);
  };
  parser.on('opentag', ({ name }) => {
    path.push(name.replace(/^.*:/, ''));
    content = '';
  });
  parser.on('text', (part) => (content += part));
  parser.on('cdata', (part) => (content += part));
  parser.on('closetag', () => {
    const place = path.join('/');
    path.pop();
    if (place === 'urlset/url/lastmod') changed = content.trim().slice(0, 40);
    if (place === 'urlset/url') {
      if (page !== undefined && changed !== undefined) modified.set(page, changed);
      [page, changed] = [undefined, undefined];
    }
    const list =
      place === 'urlset/url/loc' ? pages : place === 'sitemapindex/sitemap/loc' ? sitemaps : null;
    if (!list) return;
    const url = pageAddress(content.trim());
    if (list === pages) page = url;
    if (!url) tell(`${JSON.stringify(content.trim().slice(0, 100))} is not an address`);
    else if (list.length < maxAddresses) list.push(url);
    else if (list.length === maxAddresses) tell(`it lists more than ${maxAddresses} addresses`);
  });
  parser.on('error', (error) => {
    if (!broken) tell(error.message.replace(/^\d+:\d+: /, ''));
    broken = true;
  });
  parser.write(text).close();
  if (pages.length === 0 && sitemaps.length === 0 && problems.length === 0)
    problems.push('line 1: it is neither a urlset nor a sitemapindex');
  return { pages, modified, sitemaps, problems };
}

function parseText(text: string): Sitemap {
  const pages: string[] = [];
  const problems: string[] = [];
  text.split(/\r\n|\r|\n/).forEach((line, index) => {
    if (line.trim() === '' || pages.length >= maxAddresses) return;
    const url = pageAddress(line.trim());
    if (url) pages.push(url);
    else if (problems.length < maxProblems)
      problems.push(`line ${index + 1}: ${JSON.stringify(line.slice(0, 100))} is not an address`);
  });
  return { pages, modified: new Map(), sitemaps: [], problems };
}
