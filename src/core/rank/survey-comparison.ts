import { pathOf } from '../address/address.js';
import { bareName } from '../address/bare-name.js';
import { groupRows } from './groupings.js';
import { matchInTurn } from '../base/matching.js';
import type { Match } from '../base/matching.js';
import { sumOf } from '../waste/portion.js';
import type { Portion } from '../waste/portion.js';
import type { Ranking } from './ranking.js';
import { totalBytes } from '../load/request.js';
import type { SurveyHead, SurveyedPage } from '../survey/survey.js';

/** An image file of one survey, as it is compared. */
export interface ComparedImage {
  readonly url: string;
  readonly contentHash: string;
  readonly bytes: number;
  readonly pages: number;
  /** Of an average visit of the whole site. */
  readonly perVisit: Portion;
}

/** A page of one survey, as it is compared. */
export interface ComparedSurveyPage {
  readonly url: string;
  /** Bytes on the wire in its heaviest view. */
  readonly bytes: number;
  /** The bytes of its images in an average visit to the whole site. */
  readonly perVisit: Portion;
  readonly error: string | null;
}

/** What became of an image or a page. */
export interface SurveyChange<Item, By> extends Match<Item, By> {
  /** After less before: of the file, or of the page. */
  readonly bytes: number;
  /** After less before: image bytes of an average visit. */
  readonly perVisit: number;
}

export type ImageChange = SurveyChange<ComparedImage, 'address' | 'content' | 'name'>;
export type PageChange = SurveyChange<ComparedSurveyPage, 'address' | 'path'>;

/** The sums of a survey for an average visit. */
export interface SurveySide {
  readonly pages: number;
  readonly files: number;
  readonly perVisit: Portion;
}

export interface SurveyComparison {
  readonly before: SurveySide;
  readonly after: SurveySide;
  /** The largest change of an average visit first. */
  readonly images: readonly ImageChange[];
  readonly pages: readonly PageChange[];
}

/** Two surveys set against each other. */
export interface ComparedSurveys {
  readonly before: SurveyHead;
  readonly after: SurveyHead;
  readonly comparison: SurveyComparison;
}

type Surveyed = Pick<Ranking, 'ledger' | 'images'> & {
  readonly pages: readonly SurveyedPage[];
};

/**
 * Sets two surveys of a site against each other: images by their address, then by their content (the same file
 * elsewhere), then by their name without hash, width and format; pages by their address, then by their path, where
 * the site has another host. Bytes are those of an average visit, weighted as each survey's own audience has it.
 */
export function compareSurveys(before: Surveyed, after: Surveyed): SurveyComparison {
  const images = matchInTurn(imagesOf(before), imagesOf(after), [
    same('address' as const, ({ url }) => url),
    same('content' as const, ({ contentHash }) => contentHash),
    same('name' as const, ({ url }) => bareName(url)),
  ]);
  const pages = matchInTurn(pagesOf(before), pagesOf(after), [
    same('address' as const, ({ url }) => url),
    // What has no path is known by its address alone.
    same('path' as const, ({ url }) => (URL.canParse(url) ? pathOf(url) : '')),
  ]);
  return {
    before: sideOf(before),
    after: sideOf(after),
    images: changesOf(images),
    pages: changesOf(pages),
  };
}

function same<Item, By>(by: By, keyOf: (item: Item) => string) {
  return { by, before: keyOf, after: keyOf };
}

function imagesOf({ images }: Surveyed): ComparedImage[] {
  return images.map(({ url, file, pages, perVisit }) => ({
    url,
    contentHash: file.contentHash,
    bytes: file.bytes,
    pages,
    perVisit,
  }));
}

function pagesOf({ ledger, pages }: Surveyed): ComparedSurveyPage[] {
  const portions = new Map<string, Portion>();
  // A page has a row for what its own hosts send, and one for third parties.
  for (const { key, perVisit } of groupRows({ ledger }, ledger.rows, 'page'))
    portions.set(key, sumOf([...(portions.has(key) ? [portions.get(key)!] : []), perVisit]));
  return pages.map(({ url, bytesByType, error }) => ({
    url,
    bytes: totalBytes(bytesByType),
    perVisit: portions.get(url) ?? sumOf([]),
    error,
  }));
}

function sideOf({ pages, images, ledger }: Surveyed): SurveySide {
  return { pages: pages.length, files: images.length, perVisit: ledger.perVisit };
}

function changesOf<Item extends { readonly bytes: number; readonly perVisit: Portion }, By>(
  matches: readonly Match<Item, By>[],
): SurveyChange<Item, By>[] {
  return matches
    .map((match) => ({
      ...match,
      bytes: (match.after?.bytes ?? 0) - (match.before?.bytes ?? 0),
      perVisit: whole(match.after) - whole(match.before),
    }))
    .sort((a, b) => Math.abs(b.perVisit) - Math.abs(a.perVisit) || a.bytes - b.bytes);
}

/** All image bytes, those that cannot be judged among them. */
function whole(item: { readonly perVisit: Portion } | null): number {
  return item ? item.perVisit.sentBytes + item.perVisit.unknownBytes : 0;
}
