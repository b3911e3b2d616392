import { load } from 'cheerio';
import { SaxesParser } from 'saxes';
import { parseSrcset } from '../core/slots/srcset.js';
import { keptAddress } from '../core/address/address.js';
import type { NamingFile } from '../core/survey/picture-use.js';

const maxPictures = 5_000;
const maxLength = 4_096;

/**
 * The pictures that a feed (RSS 2.0, Atom, JSON Feed; with those in the texts of its entries) or the manifest of a web
 * application (W3C) names. What cannot be read names none.
 *
 * @param body the file, cut at a limit
 * @returns absolute addresses, each once
 */
export function picturesNamedBy({ kind, url: base }: NamingFile, body: string): string[] {
  const found = new Set<string>();
  const add = (text: unknown) => {
    if (typeof text !== 'string' || text.length > maxLength || found.size >= maxPictures) return;
    const address = URL.canParse(text.trim(), base) ? new URL(text.trim(), base) : undefined;
    if (address && /^https?:$/.test(address.protocol)) found.add(keptAddress(address.href));
  };
  if (kind === 'manifest' || body.trimStart().startsWith('{')) namedInJson(body, kind, add);
  else namedInXml(body, add);
  return [...found];
}

type Add = (text: unknown) => void;

/** Members of JSON Feed (jsonfeed.org, version 1.1) that are pictures. */
const feedMembers = new Set(['icon', 'favicon', 'image', 'banner_image', 'avatar']);

function namedInJson(body: string, kind: NamingFile['kind'], add: Add): void {
  let document: unknown;
  try {
    document = JSON.parse(body);
  } catch {
    return;
  }
  const visit = (value: unknown, depth: number): void => {
    if (typeof value !== 'object' || value === null || depth > 12) return;
    for (const [name, member] of Object.entries(value as Record<string, unknown>)) {
      if (kind === 'feed') {
        if (feedMembers.has(name)) add(member);
        else if (name === 'content_html' && typeof member === 'string') namedInText(member, add);
        else if (name === 'url' && isPicture(value)) add(member);
      } else if (name === 'src') add(member);
      visit(member, depth + 1);
    }
  };
  visit(document, 0);
}

/** Whether an attachment says that it is a picture. */
function isPicture(attachment: object): boolean {
  return 'mime_type' in attachment && String(attachment.mime_type).startsWith('image/');
}

/** Elements whose text is the address of a picture, without their prefixes. */
const addressElements = new Set(['logo', 'icon', 'url']);
/** Elements whose text is markup. */
const markupElements = new Set(['description', 'encoded', 'content', 'summary']);

function namedInXml(body: string, add: Add): void {
  const open: string[] = [];
  let text = '';
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => {
    const local = name.replace(/^.*:/, '');
    const { url, href, src, rel, type = '' } = attributes;
    open.push(local);
    text = '';
    if (local === 'thumbnail' || (local === 'content' && attributes['medium'] === 'image'))
      add(url);
    else if (type.startsWith('image/')) add(url ?? href);
    else if (name === 'itunes:image' || (local === 'link' && rel === 'icon')) add(href);
    // Markup that stands in the feed as elements (XHTML).
    else if (local === 'img') add(src);
  });
  parser.on('text', (part) => (text += part));
  parser.on('cdata', (part) => (text += part));
  parser.on('closetag', () => {
    const local = open.pop() ?? '';
    // `url` of an `image` is one; of anything else it is none.
    if (addressElements.has(local) && (local !== 'url' || open.at(-1) === 'image')) add(text);
    if (markupElements.has(local)) namedInText(text, add);
    text = '';
  });
  // What was read before a mistake counts.
  parser.on('error', () => {});
  parser.write(body).close();
}

function namedInText(markup: string, add: Add): void {
  if (!markup.includes('<')) return;
  const $ = load(markup, null, false);
  for (const element of $('img, source, video')) {
    const { src, srcset, poster } = element.attribs;
    if (element.name === 'img') add(src);
    add(poster);
    if (srcset !== undefined) for (const { url } of parseSrcset(srcset)) add(url);
  }
}
