import type { ElementMarkup } from '../../core/slots/element-markup.js';
import type { ElementPath } from '../../core/slots/element-path.js';
import type { Placement } from '../../core/slots/placement.js';
import type { Size } from '../../core/base/size.js';

/** A placement as far as the page itself can know it. */
export interface ProbedPlacement extends Omit<
  Placement,
  'page' | 'view' | 'contentHash' | 'fetched' | 'largest'
> {
  /** The element as it stands in the page; `null` for what is no `<img>`. */
  readonly element: ElementMarkup | null;
  readonly path: ElementPath;
  /** Where the element stands on the page, whether it is scrolled or not; in whole CSS pixels. */
  readonly box: Readonly<Record<'left' | 'top' | 'width' | 'height', number>>;
}

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
  readonly element?: ElementMarkup | null;
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
