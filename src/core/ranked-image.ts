import { isInDocument } from './address.js';
import type { PolicyRule } from './allowance.js';
import { needOfPlacement, sentOnce, stepsFor, timesSent } from './delivery.js';
import type { Delivery, Judgement } from './delivery.js';
import { findingsOf } from './findings/index.js';
import type { Finding } from './findings/finding.js';
import type { ImageFile, ImageResponse } from './image-file.js';
import type { Placement } from './placement.js';
import { portionOf } from './portion.js';
import type { Portion } from './portion.js';
import { renderedSize } from './rendered-size.js';
import type { Size } from './size.js';
import type { CurvePiece } from './slot-curve.js';
import type { Encoded } from './survey.js';
import { splitWaste } from './waste.js';
import type { Waste } from './waste.js';

/** A placement as it is told: with what it draws and what would be enough. */
export interface RankedPlacement extends Placement {
  readonly rendered: Size;
  /** `null` for files without pixels, and for placements that show nothing. */
  readonly need: Size | null;
  /** How the slot follows the viewport; `null` where it was not swept (broken-off visits). */
  readonly slotCurve: readonly CurvePiece[] | null;
}

/** How an address that carried an image file was answered. */
export type Answer = Pick<
  ImageResponse,
  'url' | 'status' | 'redirects' | 'declaredType' | 'protocol' | 'headers' | 'transferBytes'
>;

/** A delivery with how much its visit counts. */
export interface WeighedDelivery extends Delivery {
  readonly weight: number;
}

/** Slot curves by page, kind and selector. */
export type CurveOf = (
  placement: Pick<Placement, 'page' | 'kind' | 'selector'>,
) => readonly CurvePiece[] | null;

/** All that a survey has of one image file. */
export interface FileCase {
  readonly file: ImageFile;
  readonly responses: readonly ImageResponse[];
  readonly placed: readonly Placement[];
  readonly encoded: Encoded | undefined;
  readonly deliveries: readonly WeighedDelivery[];
}

/**
 * One image file with its waste. `bytes` and `waste` are of the file, once; `perVisit` is what an average visit has
 * of it. What only some rows are asked for is worked out when it is.
 */
export class RankedImage {
  readonly file: ImageFile;
  readonly encoded: Encoded | undefined;
  readonly responses: readonly ImageResponse[];
  readonly placed: readonly Placement[];
  readonly deliveries: readonly WeighedDelivery[];
  /** Addresses that can be asked for, before those that only their document knows. */
  readonly urls: readonly string[];
  readonly thirdParty: boolean;
  /** On how many pages it is placed. */
  readonly pages: number;
  readonly perVisit: Portion;
  /** Of the file, once for each address; `null` when it cannot be read, or no element shows it. */
  readonly waste: Waste | null;
  readonly #curveOf: CurveOf;
  readonly #judgement: Judgement;
  #findings: readonly Finding[] | undefined;

  constructor(found: FileCase, curveOf: CurveOf, judgement: Judgement) {
    this.file = found.file;
    this.encoded = found.encoded;
    this.responses = found.responses;
    this.placed = found.placed;
    this.deliveries = found.deliveries;
    this.#curveOf = curveOf;
    this.#judgement = judgement;
    this.urls = [...new Set(found.responses.map(({ url }) => url))].sort(byAddress);
    this.thirdParty = found.responses.some(judgement.isForeign);
    this.pages = new Set(found.placed.map(({ page }) => page)).size;
    this.perVisit = portionOf(found.deliveries);
    this.waste = this.#wholeWaste();
  }

  get url(): string {
    return this.urls[0] ?? this.placed[0]?.url ?? '';
  }

  /** Why it cannot be judged, when it cannot. */
  get problem(): string | null {
    return this.file.problem ?? this.encoded?.problem ?? null;
  }

  /** The largest need over all placements. */
  get need(): Size | null {
    return this.encoded?.need ?? null;
  }

  /** `estimated` where there is no encode behind it. */
  get basis(): 'encoded' | 'estimated' {
    return this.encoded && this.problem === null ? 'encoded' : 'estimated';
  }

  /** Bytes on the wire, headers included; of the heaviest answer. */
  get transferBytes(): number {
    return this.responses.reduce((most, { transferBytes }) => Math.max(most, transferBytes), 0);
  }

  /** How each of its addresses was answered, where it was first seen. */
  get answers(): Answer[] {
    return this.urls.map((address) => {
      const { url, status, redirects, declaredType, protocol, headers, transferBytes } =
        this.responses.find(({ url }) => url === address)!;
      return { url, status, redirects, declaredType, protocol, headers, transferBytes };
    });
  }

  /** Rules of the policy that let it be more than its slots need. */
  get rules(): readonly PolicyRule[] {
    const { policy, allowances } = this.#judgement;
    if (policy.rules.length === 0) return [];
    return [...new Set(this.placed.flatMap((placement) => allowances.of(placement).rules))];
  }

  get findings(): readonly Finding[] {
    const { policy, views } = this.#judgement;
    return (this.#findings ??= findingsOf({
      file: { ...this.file, problem: this.problem },
      responses: this.responses,
      placements: this.placed,
      curveOf: this.#curveOf,
      policy,
      views,
    }));
  }

  /** The slot curve of one of its placements; `null` where it was not swept. */
  curveOf(placement: Placement): readonly CurvePiece[] | null {
    return this.#curveOf(placement);
  }

  /** Its placements with what they draw and need. */
  get placements(): RankedPlacement[] {
    return this.placed.map((placement) => {
      const rendered = renderedSize(placement, this.file.intrinsic ?? undefined);
      const allowance = this.#judgement.allowances.of(placement);
      // Where the picture makes its own box, the slot is what it draws.
      const ownBox = placement.slot.width === 0 && placement.fit === 'none';
      return {
        ...placement,
        slot: ownBox ? rendered : placement.slot,
        rendered,
        need: needOfPlacement(placement, this.file, this.#judgement, allowance),
        slotCurve: this.#curveOf(placement),
      };
    });
  }

  #wholeWaste(): Waste | null {
    const shown = this.placed.some((placement) => placement.shown);
    if (this.placed.length === 0 || (this.problem !== null && shown)) return null;
    const { file, encoded, responses } = this;
    const exempt = this.rules.some((rule) => rule.exempt);
    const steps = exempt ? undefined : stepsFor(file, encoded, encoded?.need ?? null);
    return splitWaste(sentOnce(file, encoded, responses), timesSent(this.urls), shown, steps);
  }
}

function byAddress(a: string, b: string): number {
  return Number(isInDocument(a)) - Number(isInDocument(b)) || (a < b ? -1 : 1);
}
