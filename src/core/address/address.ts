/** The longest address that is followed or stored; longer ones are shortened when shown. */
export const maxAddressLength = 4096;

/**
 * The one form of a page's address: http(s) only, no fragment, no user and password, no empty query,
 * default port and letter case of the host settled by the URL standard (https://url.spec.whatwg.org/),
 * percent-encoding as RFC 3986, section 6.2.2, makes it equal.
 *
 * @returns the address, or `undefined` when `text` is not the address of a page.
 */
export function pageAddress(text: string, base?: string): string | undefined {
  if (text.length > maxAddressLength || !URL.canParse(text, base)) return undefined;
  const url = new URL(text, base);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return undefined;
  // To set a part parses the whole again, and of a list of a million addresses few need it.
  if (url.href.includes('#')) url.hash = '';
  if (url.username !== '') url.username = '';
  if (url.password !== '') url.password = '';
  if (url.hostname.endsWith('.')) url.hostname = url.hostname.replace(/\.+$/, '');
  if (url.href.includes('%')) {
    url.pathname = sameEncoding(url.pathname);
    url.search = sameEncoding(url.search);
  }
  // What is written in other letters is longer as it is sent.
  return url.href.length <= maxAddressLength ? url.href : undefined;
}

/** Upper-case digits, and nothing encoded that needs not be (RFC 3986, sections 6.2.2.1 and 6.2.2.2). */
function sameEncoding(text: string): string {
  return text.replace(/%[0-9A-Fa-f]{2}/g, (code) => {
    const character = String.fromCharCode(Number.parseInt(code.slice(1), 16));
    return /[\w.~-]/.test(character) ? character : code.toUpperCase();
  });
}

/** The address of a file without its fragment, as the network sees it. */
export function withoutFragment(address: string): string {
  const mark = address.indexOf('#');
  return mark < 0 ? address : address.slice(0, mark);
}

/**
 * An address as it is stored: one that is too long (mostly `data:`) is cut, with its length appended, the same
 * way everywhere.
 */
export function keptAddress(address: string): string {
  const plain = withoutFragment(address);
  if (plain.length <= maxAddressLength) return plain;
  return `${plain.slice(0, maxAddressLength - 16)}…${plain.length}`;
}

/** Whether an address holds, or names, bytes that the document itself brought (`data:`, `blob:`). */
export function isInDocument(address: string): boolean {
  return /^(?:data|blob):/i.test(address);
}

/** Whether an address is that of a separate file, not of bytes in a document (`data:`, `blob:`). */
export function isFetched(address: string): boolean {
  return /^https?:/.test(address);
}

/** The address of the host that a page is on: `https://brindlebay.test/` of an address in its one form. */
export function originOf(page: string): string {
  return page.slice(0, page.indexOf('/', 'https://'.length) + 1);
}

/** Path and query of an address; all of one that has no path (`data:`), or that is not an address. */
export function pathOf(address: string): string {
  if (isInDocument(address) || !URL.canParse(address)) return address;
  const { pathname, search } = new URL(address);
  return pathname + search;
}

/** Host and port of an address, or an empty text for one that has none (`data:`). */
export function hostOf(address: string): string {
  return URL.canParse(address) ? new URL(address).host : '';
}

/**
 * A file path below a folder for an address: host left out, every segment made harmless (no `..`,
 * no separators, no control characters, no name of a device, at most 120 characters), the query folded into the name, and
 * the middle of what no file system takes left out.
 */
export function relativePathOf(address: string): string {
  const url = new URL(address);
  const segments = url.pathname.split('/').map(safeSegment).filter(Boolean);
  if (url.pathname.endsWith('/') || segments.length === 0) segments.push('index');
  if (url.search) {
    const last = segments.length - 1;
    const { stem, extension } = splitExtension(segments[last]!);
    segments[last] = safeSegment(`${stem}-${url.search.slice(1)}`) + extension;
  }
  while (segments.length > 2 && segments.join('/').length > longestPath)
    segments.splice(segments.length >> 1, 1);
  return segments.join('/');
}

/** Systems take from 260 characters (Windows, unless it is told otherwise) to 4,096, with the folder that it is put into. */
const longestPath = 600;

/** Names that Windows keeps for devices, with any extension (Naming Files, Paths, and Namespaces). */
const devices = /^(?:con|prn|aux|nul|com\d|lpt\d|conin\$|conout\$)(?=\.|$)/i;

/** `kite.large.jpg` as stem `kite.large` and extension `.jpg`; no extension gives an empty text. */
export function splitExtension(name: string): { stem: string; extension: string } {
  const match = /^(.+)(\.[A-Za-z0-9]{1,8})$/.exec(name);
  return match ? { stem: match[1]!, extension: match[2]! } : { stem: name, extension: '' };
}

function safeSegment(segment: string): string {
  const text = segment
    .replace(/%[0-9A-Fa-f]{2}/g, '_')
    .replace(/[^A-Za-z0-9._~-]+/g, '_')
    .replace(/^\.+/, '_')
    .replace(/\.+$/, '_')
    .replace(devices, '_$&');
  if (text.length <= 120) return text;
  const { stem, extension } = splitExtension(text);
  return stem.slice(0, 120 - extension.length) + extension;
}
