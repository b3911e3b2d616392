import { asMarkup } from '../base/markup-text.js';

/** The metadata of a picture: what it shows, and whose it is. */
export interface Credit {
  readonly title: string | null;
  readonly description: string | null;
  readonly creator: string | null;
  readonly copyright: string | null;
  readonly keywords: readonly string[];
}

export const noCredit: Credit = {
  title: null,
  description: null,
  creator: null,
  copyright: null,
  keywords: [],
};

/** Whether all fields are empty. */
export function isEmpty({ keywords, ...texts }: Credit): boolean {
  return keywords.length === 0 && Object.values(texts).every((text) => text === null);
}

/** The metadata of the file, overridden by the entries of a person. */
export function filledIn(own: Credit, given: Credit): Credit {
  return {
    title: given.title ?? own.title,
    description: given.description ?? own.description,
    creator: given.creator ?? own.creator,
    copyright: given.copyright ?? own.copyright,
    keywords: given.keywords.length > 0 ? given.keywords : own.keywords,
  };
}

/** The longest text that is carried along. */
const maxText = 2_000;

/**
 * A credit as an XMP packet (ISO 16684-1) with the properties of the Dublin Core schema: `dc:title`, `dc:description`,
 * `dc:creator`, `dc:rights`, `dc:subject`.
 */
export function xmpOf({ title, description, creator, copyright, keywords }: Credit): string {
  const words = (text: string) =>
    asMarkup([...text.slice(0, maxText)].filter((sign) => sign >= ' ').join(''));
  const inAnyLanguage = (name: string, text: string | null) =>
    text === null
      ? ''
      : `<dc:${name}><rdf:Alt><rdf:li xml:lang="x-default">${words(text)}</rdf:li></rdf:Alt></dc:${name}>`;
  const list = (name: string, kind: 'Seq' | 'Bag', items: readonly string[]) =>
    items.length === 0
      ? ''
      : `<dc:${name}><rdf:${kind}>${items.map((item) => `<rdf:li>${words(item)}</rdf:li>`).join('')}</rdf:${kind}></dc:${name}>`;
  return [
    '<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>',
    '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">',
    '<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/">',
    inAnyLanguage('title', title),
    inAnyLanguage('description', description),
    list('creator', 'Seq', creator === null ? [] : [creator]),
    inAnyLanguage('rights', copyright),
    list('subject', 'Bag', keywords),
    '</rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>',
  ].join('');
}
