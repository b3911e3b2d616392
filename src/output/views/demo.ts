import type { SessionComparison } from '../../core/load/comparison.js';
import type { Portion } from '../../core/waste/portion.js';

/** What the summary of the demo is shown from. */
export interface DemoView {
  readonly pages: number;
  readonly images: number;
  readonly perVisit: Portion;
  readonly files: number;
  readonly comparison: SessionComparison;
  readonly folders: { readonly workspace: string; readonly out: string };
}
