import { hostOf } from '../address/address.js';
import { textMatcher } from '../address/address-matcher.js';
import type { Size } from '../base/size.js';
import { heroShare } from '../policy/ceilings.js';
import type { SentRequest, SentVisits } from '../rank/sent-visits.js';
import type { ImageFile } from '../survey/image-file.js';
import { rowsByIndex } from '../survey/survey-tables.js';
import type { RowsByIndex, VisitKey } from '../survey/survey-tables.js';
import type { SurveyedPage } from '../survey/survey.js';
import type { BudgetFilters, ImageRole } from './filters.js';

/** A visit with the page group of its page and its weight among all. */
export interface MeasuredVisit extends VisitKey {
  readonly group: string;
  readonly weight: number;
}

/** An image file as one visit was sent it. */
export interface MeasuredImage {
  readonly file: ImageFile;
  readonly url: string;
  readonly wasteBytes: number;
  /** `null` for vectors, and where nothing is shown. */
  readonly need: Size | null;
  /** The element that decides the need; `null` where none shows it. */
  readonly placement: { readonly kind: string; readonly selector: string } | null;
  readonly role: ImageRole;
  readonly thirdParty: boolean;
}

/** A finding of a survey, and where it was made. */
export interface MeasuredFinding {
  readonly id: string;
  readonly url: string;
  readonly pages: readonly string[];
}

/** A survey as budgets see it. */
export class MeasuredSurvey {
  readonly label: string;
  readonly startedAt: string;
  readonly pages: readonly SurveyedPage[];
  readonly visits: readonly MeasuredVisit[];
  readonly #sent: SentVisits;
  readonly #rows: RowsByIndex;
  readonly #urls: readonly string[];
  readonly #findings: () => readonly MeasuredFinding[];
  #found: readonly MeasuredFinding[] | undefined;

  /**
   * @param urls the first address of each image file
   * @param findings worked out when a budget asks for them
   */
  constructor(
    sent: SentVisits,
    pages: readonly SurveyedPage[],
    urls: readonly string[],
    findings: () => readonly MeasuredFinding[],
  ) {
    const { facts, weights, visit } = sent.ledger;
    this.label = facts.head.label;
    this.startedAt = facts.head.startedAt;
    this.pages = pages;
    this.#sent = sent;
    this.#urls = urls;
    this.#findings = findings;
    const groups = new Map(pages.map(({ url, group }) => [url, group ?? url]));
    this.visits = facts.visits.map(({ page, view }, at) => ({
      ...{ page, view, group: groups.get(page) ?? page, weight: weights[at]! },
    }));
    this.#rows = rowsByIndex(visit, facts.visits.length);
  }

  get policy() {
    return this.#sent.ledger.inputs.policy;
  }

  get findings(): readonly MeasuredFinding[] {
    return (this.#found ??= this.#findings());
  }

  /** What a visit was sent of what a budget is about. */
  requestsOf(visit: number, budget: Pick<BudgetFilters, 'type' | 'party' | 'host'>): SentRequest[] {
    const isMeant = requestMatcher(budget);
    return this.#sent
      .of(visit)
      .filter((request) => (budget.type ?? request.type) === request.type && isMeant(request));
  }

  /** The image files that a visit was sent, of those that a budget is about. */
  imagesOf(
    visit: number,
    budget: Pick<BudgetFilters, 'image' | 'party' | 'host'>,
  ): MeasuredImage[] {
    const isMeant = requestMatcher(budget);
    const { rows, starts } = this.#rows;
    return Array.from(rows.subarray(starts[visit], starts[visit + 1]), (row) => this.#image(row))
      .filter(isMeant)
      .filter(({ role }) => (budget.image ?? role) === role);
  }

  #image(row: number): MeasuredImage {
    const { ledger } = this.#sent;
    const { file, deciding, placed, verdict } = ledger.at(row);
    const { facts } = ledger;
    const shown = deciding >= 0 ? deciding : placed;
    const placement = shown >= 0 ? facts.placements.at(shown) : null;
    const view = facts.head.views.find(({ name }) => name === placement?.view);
    return {
      ...{ file: facts.files[file]!, url: this.#urls[file]!, need: verdict.need },
      wasteBytes: verdict.waste?.wasteBytes ?? 0,
      placement: placement && { kind: placement.kind, selector: placement.selector },
      role: roleOf(placement?.slot.width ?? 0, view?.width ?? Infinity, this.policy.ceilings),
      thirdParty: verdict.thirdParty,
    };
  }
}

function roleOf(
  slot: number,
  viewport: number,
  { smallWidth }: { readonly smallWidth: number },
): ImageRole {
  if (slot >= viewport * heroShare) return 'hero';
  return slot <= smallWidth ? 'small' : 'content';
}

type Sender = Pick<SentRequest, 'url' | 'thirdParty'>;

function requestMatcher({ party, host }: Pick<BudgetFilters, 'party' | 'host'>) {
  const isHost = host === undefined ? undefined : textMatcher(host);
  return ({ url, thirdParty }: Sender) =>
    (party === undefined || (party === 'third') === thirdParty) &&
    (isHost === undefined || isHost(hostOf(url)));
}
