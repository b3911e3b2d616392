import { hostOf } from '../address/address.js';
import { textMatcher } from '../address/address-matcher.js';
import type { Size } from '../base/size.js';
import { heroShare } from '../policy/ceilings.js';
import type { SentRequest, SentVisits } from '../rank/sent-visits.js';
import type { ImageFile } from '../survey/image-file.js';
import { rowsByIndex } from '../survey/survey-tables.js';
import type { PlacementShape, RowsByIndex, VisitKey } from '../survey/survey-tables.js';
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
  /** Finds the element that decides the need; `null` where none shows it. */
  readonly placement: () => { readonly kind: string; readonly selector: string } | null;
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
  /** Of the windows, by view. */
  readonly #widths: ReadonlyMap<string, number>;
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
    this.#widths = new Map(facts.head.views.map(({ name, width }) => [name, width]));
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
    const { image } = budget;
    return [...rows.subarray(starts[visit], starts[visit + 1])]
      .filter((row) => image === undefined || this.#roleOf(row) === image)
      .map((row) => this.#image(row))
      .filter(isMeant);
  }

  #image(row: number): MeasuredImage {
    const { ledger } = this.#sent;
    const { file, verdict } = ledger.at(row);
    return {
      ...{ file: ledger.facts.files[file]!, url: this.#urls[file]!, need: verdict.need },
      wasteBytes: verdict.waste?.wasteBytes ?? 0,
      placement: () => {
        const shape = this.#shapeOf(row);
        return shape ? { kind: shape.kind, selector: shape.selector } : null;
      },
      thirdParty: verdict.thirdParty,
    };
  }

  /** The placement that decides the need of a delivery, or the first where none does. */
  #shapeOf(row: number): PlacementShape | undefined {
    const { deciding, placed, facts } = this.#sent.ledger;
    const shown = deciding[row]! >= 0 ? deciding[row]! : placed[row]!;
    const { columns, lists } = facts.placements;
    return shown < 0 ? undefined : lists.shapes[columns.shape[shown]!];
  }

  #roleOf(row: number): ImageRole {
    const { visit } = this.#sent.ledger;
    const { view } = this.visits[visit[row]!]!;
    const viewport = this.#widths.get(view) ?? Infinity;
    return roleOf(this.#shapeOf(row)?.slot.width ?? 0, viewport, this.policy.ceilings);
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
