import type { SessionComparison } from '../../core/load/comparison.js';
import type { Portion } from '../../core/waste/portion.js';

/** What the summary of the demo is shown from. */
export interface DemoView {
  readonly pages: number;
  readonly images: number;
  readonly perVisit: Portion;
  readonly files: number;
  /** Of the page as it was recorded, and with the refit in the recording. */
  readonly tried: SessionComparison;
  /** Of the real site before the refit and after it. */
  readonly comparison: SessionComparison;
  readonly folders: { readonly workspace: string; readonly out: string; readonly report: string };
}
