import type { NotMade } from '../../core/refit/refit-manifest.js';
import type { Collision } from '../../core/refit/plan/refit-names.js';
import type { PictureSize } from '../../core/refit/refit-job.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';

/** What a refit is shown from. */
export interface RefitView {
  readonly folder: string;
  readonly survey: string | null;
  readonly files: readonly {
    readonly path: string;
    readonly from: PictureSize & { readonly bytes: number; readonly mediaType: string };
    readonly to: PictureSize & { readonly bytes: number; readonly format: string };
    /** The larger file of the same picture that its pixels come from. */
    readonly pixelsFrom: string | null;
  }[];
  readonly kept: readonly { readonly url: string; readonly reason: string }[];
  readonly notMade: readonly NotMade[];
  readonly collisions: readonly Collision[];
  readonly variants: readonly { readonly bytes: number }[];
  readonly worklist: readonly WorkItem[];
  readonly papers: readonly { readonly path: string }[];
  readonly sheets: readonly {
    readonly path: string;
    readonly pages: number;
    readonly images: number;
    readonly bytes: { readonly before: number; readonly after: number };
  }[];
  /** Snippets handed out, how many of them were tried, and elements without one; `null` where there is no markup. */
  readonly markup: {
    readonly snippets: number;
    readonly proved: number;
    readonly withheld: number;
    /** Why some were not tried, the first reason; `null` if all were. */
    readonly untried: string | null;
  } | null;
  readonly zipped: string | null;
  readonly unchanged: number;
  readonly dryRun: boolean;
  readonly interrupted: boolean;
  /** How many files are listed. */
  readonly top: number;
}
