import { attributeOf, closestTo, localNameOf, parentElementOf, tagNameOf } from './element.js';

/** The most nodes that are read. */
const maxNodes = 50_000;

/** Documents with less than this may be equal by chance: pages that are still to be filled, notices, samples. */
const fewElements = 20;
const fewLetters = 200;

/** What decides what an element shows, besides its place. */
const telling = [
  'class',
  'style',
  'href',
  'src',
  'srcset',
  'poster',
  'data',
  'background',
] as const;

/** Elements whose text nobody reads; tokens and times stand in it. */
const unread = new Set(['SCRIPT', 'NOSCRIPT', 'TEMPLATE', 'INPUT']);

/** Times of day, durations, and long numbers such as time stamps: they differ from load to load. */
const fleeting = /\d{1,2}:\d{2}(?::\d{2})?|\d+(?:\.\d+)?\s?m?s\b|\d{9,}/g;

/**
 * A digest of what the document shows: its elements, texts and files, without what differs from load to load. Two addresses
 * with the same are one page; where there is little to go by, it begins with a question mark. Empty for a document that shows
 * nothing.
 */
export function digestOf(): string {
  const hash = new Digest();
  let shows = false;
  let elements = 0;
  let letters = 0;
  let left = maxNodes;
  const root = document.documentElement as Element | null;
  if (!root) return '';
  const walker = document.createTreeWalker(
    root,
    NodeFilter.SHOW_ELEMENT | NodeFilter.SHOW_TEXT,
    (node) =>
      node instanceof Element && unread.has(tagNameOf(node))
        ? NodeFilter.FILTER_REJECT
        : NodeFilter.FILTER_ACCEPT,
  );
  for (let node = walker.nextNode(); node && left-- > 0; node = walker.nextNode()) {
    if (node instanceof Element) {
      elements++;
      hash.add(localNameOf(node));
      for (const name of telling) {
        const value = attributeOf(node, name);
        if (value === null) continue;
        hash.add(value.replace(fleeting, ''));
        shows ||= name === 'src' || name === 'srcset';
      }
      continue;
    }
    const text = (node.textContent ?? '').replace(/\s+/g, ' ').replace(fleeting, '').trim();
    if (text === '') continue;
    hash.add(text);
    letters += text.length;
    const around = parentElementOf(node);
    shows ||= around !== null && closestTo(around, 'head') === null;
  }
  if (!shows) return '';
  return elements < fewElements || letters < fewLetters ? `?${hash.text}` : hash.text;
}

/** Two hashes of 32 bit (FNV-1a; Fowler, Noll and Vo) that begin differently. */
class Digest {
  #one = 0x811c9dc5;
  #other = 0x1000193;

  add(text: string): void {
    for (let at = 0; at < text.length; at++) {
      const code = text.charCodeAt(at);
      this.#one = Math.imul(this.#one ^ code, 0x01000193);
      this.#other = Math.imul(this.#other ^ (code + 1), 0x01000193);
    }
    // What ends here does not run into what follows.
    this.#one = Math.imul(this.#one ^ 0xffff, 0x01000193);
    this.#other = Math.imul(this.#other ^ 0xffff, 0x01000193);
  }

  get text(): string {
    const digits = (hash: number) => (hash >>> 0).toString(16).padStart(8, '0');
    return digits(this.#one) + digits(this.#other);
  }
}
