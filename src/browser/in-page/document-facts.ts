import { digestOf } from './document-digest.js';
import type { DocumentSketch } from '../../core/survey/document-sketch.js';
import type { Size } from '../../core/base/size.js';
import { iconsOf, linksOf, ownLinksOf } from './links.js';
import { resolveAddress } from './resolve.js';
import { pageSize } from './scroll.js';
import { shapeOf } from './shape.js';
import { namingFilesOf, usesOf } from './uses.js';
import type { NamingFile, PictureUse } from '../../core/survey/picture-use.js';

/** What a document says about itself and links to. */
export interface DocumentFacts {
  readonly links: readonly string[];
  /** Links to the document itself in another state (`?replytocom=7`) that it asks not to follow. */
  readonly ownLinks: readonly string[];
  /** A digest of what it shows; empty if it shows nothing. */
  readonly digest: string;
  readonly icons: readonly string[];
  /** Its canonical address (`rel=canonical`), or `null`. */
  readonly canonical: string | null;
  readonly shape: DocumentSketch;
  /** The pictures that it names without showing them there. */
  readonly uses: readonly Omit<PictureUse, 'page'>[];
  readonly namingFiles: readonly NamingFile[];
  /** Of the whole page, in CSS pixels. */
  readonly size: Size;
}

/** Whether there is one: a script may take it away. */
export function hasDocument(): boolean {
  return (document.documentElement as Element | null) !== null;
}

export function documentFacts(): DocumentFacts {
  const canonical = document.querySelector('link[rel~="canonical" i][href]');
  const href = canonical?.getAttribute('href') ?? '';
  return {
    links: linksOf(),
    ownLinks: ownLinksOf(),
    digest: digestOf(),
    icons: iconsOf(),
    canonical: (href && resolveAddress(href)) || null,
    shape: shapeOf(),
    uses: usesOf(),
    namingFiles: namingFilesOf(),
    size: pageSize(),
  };
}
