import { addressMatcher, textMatcher } from '../address/address-matcher.js';
import type { DeliveryRows } from '../waste/ledger.js';
import type { Ranking } from './ranking.js';
import type { SurveyFacts } from '../survey/survey.js';
import type { Cause } from '../waste/waste.js';

/** The visits to include; by default all. */
export interface VisitFilter {
  /** Patterns of addresses of pages. */
  readonly pages?: readonly string[];
  /** Patterns of names of page groups. */
  readonly groups?: readonly string[];
  /** Names of views. */
  readonly views?: readonly string[];
}

/** The image files to include; by default all. */
export interface ImageFilter {
  readonly party?: 'first' | 'third' | undefined;
  /** Only waste with one of these causes. */
  readonly causes?: readonly Cause[];
  /** Ends of media types: `jpeg`, `svg+xml`. */
  readonly types?: readonly string[];
  /** Least bytes of the file. */
  readonly bytes?: number | undefined;
  /** Ids of findings, of which it must have one. */
  readonly findings?: readonly string[];
}

/** The part of a survey that has to do with some of its visits. */
export function narrowFacts(facts: SurveyFacts, filter: VisitFilter): SurveyFacts {
  const { pages = [], groups = [], views = [] } = filter;
  if (pages.length + groups.length + views.length === 0) return facts;
  const pageHolds = anyOf(pages.map(addressMatcher));
  const groupHolds = anyOf(groups.map(textMatcher));
  const keptPages = facts.pages.filter(
    ({ url, group }) => pageHolds(url) && groupHolds(group ?? url),
  );
  const kept = new Set(keptPages.map(({ url }) => url));
  const inView = (view: string) => views.length === 0 || views.includes(view);
  const keep = facts.visits.map(({ page, view }) => kept.has(page) && inView(view));
  const { head } = facts;
  return {
    ...facts,
    head: { ...head, views: head.views.filter(({ name }) => inView(name)) },
    pages: keptPages,
    visits: facts.visits.map((visit, at) => ({
      ...visit,
      measured: visit.measured && keep[at]!,
    })),
    placements: facts.placements.ofVisits(keep),
    responses: facts.responses.ofVisits(keep),
  };
}

/** Whether a filter leaves nothing out. */
export function isAll(filter: ImageFilter): boolean {
  const { party, causes = [], types = [], bytes = 0, findings = [] } = filter;
  return party === undefined && causes.length + types.length + bytes + findings.length === 0;
}

/** The deliveries of some image files, as rows of the ledger. */
export function deliveriesOf(
  { ledger, images }: Pick<Ranking, 'ledger' | 'images'>,
  filter: ImageFilter = {},
): DeliveryRows {
  const { rows, file, verdictIndex, facts } = ledger;
  if (isAll(filter)) return rows;
  const { party, causes = [], types = [], bytes = 0, findings = [] } = filter;
  const found = new Set(
    findings.length === 0
      ? images.map(({ fileIndex }) => fileIndex)
      : images
          .filter((image) => image.findings.some(({ id }) => findings.includes(id)))
          .map(({ fileIndex }) => fileIndex),
  );
  const meant = facts.files.map(
    (one, at) =>
      found.has(at) &&
      one.bytes >= bytes &&
      (types.length === 0 || types.includes(one.mediaType.split('/')[1] ?? '')),
  );
  const holds = ledger.verdicts.map(
    ({ waste, thirdParty }) =>
      (party === undefined || thirdParty === (party === 'third')) &&
      (causes.length === 0 || causes.some((cause) => (waste?.causes[cause] ?? 0) > 0)),
  );
  return rows.filter((row) => meant[file[row]!]! && holds[verdictIndex[row]!]!);
}

function anyOf(patterns: readonly ((text: string) => boolean)[]): (text: string) => boolean {
  return (text) => patterns.length === 0 || patterns.some((means) => means(text));
}
