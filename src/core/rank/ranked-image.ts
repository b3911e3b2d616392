import type { PolicyRule } from '../policy/allowance.js';
import { demandsOf, neededWidths } from './demands.js';
import { PlacedRow } from './placed-row.js';
import { findingsOfImage } from './image-findings.js';
import type { Finding } from '../findings/finding.js';
import type { PlacedImage } from '../findings/image/image-case.js';
import type { ImageFile, ImageResponse } from '../survey/image-file.js';
import { canJudge, judgeWholeFile, sentOf, wholeNeed } from '../waste/whole-file.js';
import type { Delivery, Ledger } from '../waste/ledger.js';
import { needOf } from '../policy/need.js';
import type { Placement } from '../slots/placement.js';
import type { Portion } from '../waste/portion.js';
import { renderedSize } from '../slots/rendered-size.js';
import type { Size } from '../base/size.js';
import type { CurvePiece } from '../slots/slot-curve.js';
import type { ResponseFacts } from '../survey/survey-tables.js';
import type { Encoded } from '../survey/encoded.js';
import type { Waste } from '../waste/waste.js';
import type { Demand } from '../slots/width-plan.js';

/** A placement as it is shown: with what it draws and what would be enough. */
export interface RankedPlacement extends Placement {
  readonly rendered: Size;
  /** `null` for files without pixels, and for placements that show nothing. */
  readonly need: Size | null;
  /** How the slot's width depends on the viewport; `null` if it was not swept (interrupted visits). */
  readonly slotCurve: readonly CurvePiece[] | null;
}

/** A response that carried an image file. */
export type AddressResponse = Pick<
  ImageResponse,
  | 'url'
  | 'status'
  | 'redirects'
  | 'declaredType'
  | 'protocol'
  | 'headers'
  | 'transferBytes'
  | 'initiator'
>;

/**
 * One image file with its waste. `waste` is of the file, counted once; `perVisit` is its waste on an average
 * visit. Facts that only some rows need are computed when read.
 */
export class RankedImage {
  /** Place in the list of files. */
  readonly fileIndex: number;
  readonly file: ImageFile;
  readonly encoded: Encoded | undefined;
  readonly #ledger: Ledger;
  #urls: readonly string[] | undefined;
  #findings: readonly Finding[] | undefined;
  #perVisit: Portion | undefined;
  #whole: (Pick<Waste, 'sentBytes'> & { readonly waste: Waste | null }) | undefined;

  constructor(ledger: Ledger, fileIndex: number) {
    this.#ledger = ledger;
    this.fileIndex = fileIndex;
    this.file = ledger.facts.files[fileIndex]!;
    this.encoded = ledger.encoded[fileIndex];
  }

  get deliveries(): readonly Delivery[] {
    return Array.from(this.#ledger.rowsOf(this.fileIndex), (row) => this.#ledger.at(row));
  }

  /** What the audience needs of it. */
  get demands(): Demand[] {
    return demandsOf(neededWidths(this.#ledger.rowsOf(this.fileIndex), this.#ledger), this.#ledger);
  }

  get perVisit(): Portion {
    return (this.#perVisit ??= this.#ledger.sum(this.#ledger.rowsOf(this.fileIndex)));
  }

  /**
   * What an average visit is sent and wastes of it, some visits left out.
   *
   * @param visits pages and views, as `page\nview`
   */
  sumWithout(visits: ReadonlySet<string>): Portion {
    const { facts, visit } = this.#ledger;
    return this.#ledger.sum(
      this.#ledger.rowsOf(this.fileIndex).filter((row) => {
        const { page, view } = facts.visits[visit[row]!]!;
        return !visits.has(`${page}\n${view}`);
      }),
    );
  }

  /** Of the file, once for each address; `null` when it cannot be read, or no element shows it. */
  get waste(): Waste | null {
    return (this.#whole ??= this.#judgeWhole()).waste;
  }

  /** Bytes of the file, once for each address. */
  get sentBytes(): number {
    return (this.#whole ??= this.#judgeWhole()).sentBytes;
  }

  #judgeWhole() {
    return judgeWholeFile(this.file, this.encoded, {
      ...sentOf(this.answers),
      isPlaced: this.isPlaced,
      isShown: this.#isShown,
      isExempt: this.rules.some((rule) => rule.exempt),
      need: this.need,
    });
  }

  /** Whether any visit shows it. */
  get #isShown(): boolean {
    const { deciding, starts } = this.#ledger;
    for (let row = starts[this.fileIndex]!; row < starts[this.fileIndex + 1]!; row++)
      if (deciding[row]! >= 0) return true;
    return false;
  }

  /** Whether its waste is known: the file can be read and an element shows it. */
  get isJudged(): boolean {
    return canJudge(this.isPlaced, this.#isShown, this.problem);
  }

  /** Its answers, each that is different once. */
  get answers(): ResponseFacts[] {
    const { responses } = this.#ledger.facts;
    const { rows, starts } = this.#ledger.answers;
    const places = new Set<number>();
    for (let at = starts[this.fileIndex]!; at < starts[this.fileIndex + 1]!; at++)
      places.add(responses.columns.answer[rows[at]!]!);
    return [...places].map((place) => responses.answers[place]!);
  }

  /** Addresses that can be requested before those that exist only in a document. */
  get urls(): readonly string[] {
    return (this.#urls ??= sentOf(this.answers).urls);
  }

  get url(): string {
    return this.urls[0] ?? this.placed[0]?.url ?? '';
  }

  /** Whether any element has it. */
  get isPlaced(): boolean {
    return this.placementCount > 0;
  }

  get placed(): PlacedImage[] {
    const { placements } = this.#ledger.facts;
    const { rows, starts } = this.#ledger.placements;
    return Array.from(
      rows.subarray(starts[this.fileIndex], starts[this.fileIndex + 1]),
      (row) => new PlacedRow(placements, row),
    );
  }

  get thirdParty(): boolean {
    return this.answers.some(this.#ledger.inputs.isForeign);
  }

  /** On how many pages it is placed. */
  get pages(): number {
    return new Set(this.placed.map(({ page }) => page)).size;
  }

  /** Why it cannot be judged, when it cannot. */
  get problem(): string | null {
    return this.file.problem ?? this.encoded?.problem ?? null;
  }

  /** The largest need over the placements that are looked at. */
  get need(): Size | null {
    const { starts, verdicts, verdictIndex } = this.#ledger;
    let most: Size | null = null;
    for (let row = starts[this.fileIndex]!; row < starts[this.fileIndex + 1]!; row++) {
      const { need } = verdicts[verdictIndex[row]!]!;
      if (need && need.width > (most?.width ?? 0)) most = need;
    }
    return wholeNeed(this.encoded, most);
  }

  /** `estimated` where there is no encode of it, or none at the need of the views that are looked at. */
  get basis(): 'encoded' | 'estimated' {
    if (!this.encoded || this.problem !== null) return 'estimated';
    return this.need?.width === this.encoded.need?.width ? 'encoded' : 'estimated';
  }

  /** Bytes on the wire, headers included, of the heaviest response. */
  get transferBytes(): number {
    return this.answers.reduce((most, { transferBytes }) => Math.max(most, transferBytes), 0);
  }

  /** The response of each of its addresses, from the first visit. */
  get addressResponses(): AddressResponse[] {
    const answers = this.answers;
    return this.urls.map((address) => {
      const {
        contentHash: _,
        problem: __,
        thirdParty: ___,
        ...answer
      } = answers.find(({ url }) => url === address)!;
      return answer;
    });
  }

  /** Rules of the policy that allow it more than its slots need. */
  get rules(): readonly PolicyRule[] {
    const { policy, allowances } = this.#ledger.inputs;
    if (policy.rules.length === 0) return [];
    return [...new Set(this.placed.flatMap((placement) => allowances.of(placement).rules))];
  }

  get findings(): readonly Finding[] {
    return (this.#findings ??= findingsOfImage(
      this,
      this.#ledger,
      (fileIndex) => new RankedImage(this.#ledger, fileIndex),
    ));
  }

  /** How often elements have it, in all visits. */
  get placementCount(): number {
    const { starts } = this.#ledger.placements;
    return starts[this.fileIndex + 1]! - starts[this.fileIndex]!;
  }

  /** Its placements with what they draw and need. */
  get placements(): RankedPlacement[] {
    return this.firstPlacements(Infinity);
  }

  /** The same, of the first of them only. */
  firstPlacements(most: number): RankedPlacement[] {
    const { policy, allowances } = this.#ledger.inputs;
    const { intrinsic } = this.file;
    const densities = new Map(
      this.#ledger.facts.head.views.map(({ name, density }) => [name, density]),
    );
    const table = this.#ledger.facts.placements;
    return this.placed.slice(0, most).map(({ row }) => {
      const placement = table.at(row);
      const rendered = renderedSize(placement, intrinsic ?? undefined);
      // Where the picture makes its own box, the slot is what it draws.
      const ownBox = placement.slot.width === 0 && placement.fit === 'none';
      const shown = { ...placement, density: densities.get(placement.view) ?? 1 };
      return {
        ...placement,
        slot: ownBox ? rendered : placement.slot,
        rendered,
        need:
          intrinsic && placement.shown
            ? needOf(shown, intrinsic, policy, allowances.of(placement))
            : null,
        slotCurve: table.curveAt(row),
      };
    });
  }
}
