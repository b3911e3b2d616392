import type { Placement } from '../../core/slots/placement.js';
import type { Size } from '../../core/base/size.js';

/** A placement as far as the page itself can know it. */
export type ProbedPlacement = Omit<
  Placement,
  'page' | 'view' | 'contentHash' | 'fetched' | 'largest'
>;

/** A pseudo-element, or none. */
export type Pseudo = '' | '::before' | '::after' | '::marker';

/** What one kind of placement finds at an element. */
export interface Found {
  readonly url: string;
  readonly fit: Placement['fit'];
  readonly drawn?: Placement['drawn'];
  readonly naturalDensity?: number;
  /** Measures the slot as it is now; called again at every width of a sweep. */
  readonly slot: () => Size;
  /** Width to height of a picture that may be drawn larger or smaller than its slot; `null` as long as it is unknown. */
  readonly ratio?: () => number | null;
  readonly loading?: Placement['loading'];
  readonly markup?: Placement['markup'];
}

/** An element, or one of its pseudo-elements, with its computed style. */
export interface Spot {
  readonly element: Element;
  readonly pseudo: Pseudo;
  readonly style: CSSStyleDeclaration;
}

/** One way in which pages show images. */
export interface PlacementProbe {
  readonly kind: Placement['kind'];
  readonly find: (spot: Spot) => readonly Found[];
}
