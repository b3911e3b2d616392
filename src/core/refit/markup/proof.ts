import type { View } from '../../visitors/view.js';
import type { LaidOutImage } from './markup-try.js';

/** What came of markup in one view. */
export interface ViewProof {
  readonly view: View;
  /** Why it does not hold; `null` if it does. */
  readonly problem: string | null;
  readonly before: LaidOutImage;
  readonly after: LaidOutImage;
}

/** What came of markup that was tried in a page. */
export interface Proof {
  readonly page: string;
  readonly selector: string;
  readonly views: readonly ViewProof[];
  /** Views in which the page has no such element. */
  readonly absent: readonly View[];
}
