import type { SessionComparison } from '../../core/load/comparison.js';
import type { PredictedChange } from '../../core/load/predict.js';
import type { MovedPlacement } from '../../core/trial/moved-placements.js';
import type { ComparedPageView, CompareView } from './compare.js';

/** A fix as it was applied to a page. */
export interface AppliedFixView {
  readonly name: string;
  readonly title: string;
  readonly unit: string;
  readonly changed: number;
  readonly notes: readonly string[];
  readonly alone: SessionComparison | null;
  readonly predicted: PredictedChange | null;
}

/** One page as it is, and with fixes. */
export interface TriedPageView extends ComparedPageView {
  readonly fixes: readonly AppliedFixView[];
  readonly warm: ComparedPageView | null;
  readonly recording: string;
  readonly missing: readonly { readonly url: string; readonly reason: string }[];
  readonly unrecorded: readonly {
    readonly url: string;
    readonly method: string;
    readonly referrer: string;
    readonly times: number;
  }[];
  readonly alike: readonly { readonly asked: string; readonly given: string }[];
  readonly moved: readonly MovedPlacement[];
  readonly unpaired: number;
}

/** What a trial is shown from. */
export type TrialView<Page extends TriedPageView = TriedPageView> = CompareView<Page>;
