import type { PageVisitor } from '../../browser/visit/survey-browser.js';
import type { Size } from '../../core/base/size.js';
import type { View } from '../../core/visitors/view.js';

/** The work on one survey that is given to a crew. */
export interface CrewWork {
  readonly visitors: (views: readonly View[]) => readonly PageVisitor[];
  /** Whether one of them is free to encode. */
  readonly hasRoomForEncode: boolean;
  readonly capacity: number;
  /** Has one of them encode a file at its need, and keep what came of it. */
  readonly encode: (contentHash: string, need: Size | null) => Promise<void>;
  /**
   * Has one of them sum up a part of the survey, and keep what came of it.
   *
   * @param closing tells one attempt to close the survey from another
   * @returns whether one of them did
   */
  readonly sum: (part: number, closing: string) => Promise<boolean>;
  /** @param isStopped whether the survey was stopped by a person, and is to be left alone */
  readonly close: (isStopped: boolean) => Promise<void>;
}
