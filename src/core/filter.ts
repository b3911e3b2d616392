import { addressPattern, textPattern } from './address-pattern.js';
import type { RankedDelivery } from './groupings.js';
import type { RankedImage } from './ranked-image.js';
import type { SurveyFacts } from './survey.js';
import type { Cause } from './waste.js';

/** Which visits are looked at; what is left out is all. */
export interface VisitFilter {
  /** Patterns of addresses of pages. */
  readonly pages?: readonly string[];
  /** Patterns of names of page groups. */
  readonly groups?: readonly string[];
  /** Names of views. */
  readonly views?: readonly string[];
}

/** Which image files are looked at; what is left out is all. */
export interface ImageFilter {
  readonly party?: 'first' | 'third' | undefined;
  /** Only what waste has for one of these causes. */
  readonly causes?: readonly Cause[];
  /** Ends of media types: `jpeg`, `svg+xml`. */
  readonly types?: readonly string[];
  /** Least bytes of the file. */
  readonly bytes?: number | undefined;
}

/** The part of a survey that has to do with some of its visits. */
export function narrowFacts(facts: SurveyFacts, filter: VisitFilter): SurveyFacts {
  const { pages = [], groups = [], views = [] } = filter;
  if (pages.length + groups.length + views.length === 0) return facts;
  const pageHolds = anyOf(pages.map(addressPattern));
  const groupHolds = anyOf(groups.map(textPattern));
  const kept = new Set(
    facts.pages
      .filter(
        ({ url, group }) => pageHolds(url) && (groups.length === 0 || groupHolds(group ?? url)),
      )
      .map(({ url }) => url),
  );
  const seen = new Set(views);
  const holds = ({ page, view }: { page: string; view: string }) =>
    kept.has(page) && (seen.size === 0 || seen.has(view));
  const responses = facts.responses.filter(holds);
  const placements = facts.placements.filter(holds);
  const hashes = new Set([...responses, ...placements].map(({ contentHash }) => contentHash));
  const { head } = facts;
  return {
    ...facts,
    head: { ...head, views: head.views.filter(({ name }) => seen.size === 0 || seen.has(name)) },
    pages: facts.pages.filter(({ url }) => kept.has(url)),
    files: facts.files.filter(({ contentHash }) => hashes.has(contentHash)),
    responses,
    placements,
  };
}

/** The deliveries of some image files. */
export function deliveriesOf(
  images: readonly RankedImage[],
  { party, causes = [], types = [], bytes = 0 }: ImageFilter = {},
): RankedDelivery[] {
  return images
    .filter(({ file }) => file.bytes >= bytes)
    .filter(({ file }) => types.length === 0 || types.includes(file.mediaType.split('/')[1] ?? ''))
    .flatMap((image) => image.deliveries.map((delivery) => ({ image, delivery })))
    .filter(({ delivery }) => party === undefined || delivery.thirdParty === (party === 'third'))
    .filter(
      ({ delivery: { waste } }) =>
        causes.length === 0 || causes.some((cause) => (waste?.causes[cause] ?? 0) > 0),
    );
}

function anyOf(patterns: readonly ((text: string) => boolean)[]): (text: string) => boolean {
  return (text) => patterns.length === 0 || patterns.some((means) => means(text));
}
