import type { Collision } from './plan/refit-names.js';
import type { KeptFile, RefitFile, VariantJob } from './refit-job.js';

/** A file of a refit's folder. */
export interface OwnFile {
  readonly path: string;
  readonly resultHash: string;
}

/** Another form of a file of a refit. */
export interface RefitVariant extends OwnFile {
  /** Of the original. */
  readonly contentHash: string;
  readonly use: VariantJob['use'];
  readonly mediaType: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

/** A file that is not made, and why. */
export interface NotMade {
  readonly path: string;
  readonly reason: string;
}

/** The content of a refit's folder, stored there as `manifest.json`. */
export interface RefitManifest {
  readonly format: 'zealous-lynx.refit/1';
  /** The survey that it was made from; `null` for pictures of a folder. */
  readonly survey: string | null;
  readonly createdAt: string;
  /** The encoders' version and the settings that its files depend on. */
  readonly encodedBy: string;
  /** Each image at its need. */
  readonly files: readonly RefitFile[];
  /** The same images in other widths, and in formats that every browser reads. */
  readonly variants: readonly RefitVariant[];
  /** Images that stay as they are. */
  readonly kept: readonly KeptFile[];
  readonly notMade: readonly NotMade[];
  /** Names that were taken already. */
  readonly collisions: readonly Collision[];
  /** Small images joined into one, and their styles. */
  readonly sheets: readonly OwnFile[];
  /** The work list and what goes with it. */
  readonly papers: readonly OwnFile[];
  /** Files of earlier refits into this folder that this one does not make. */
  readonly earlier: readonly OwnFile[];
}

/** All files that a manifest claims as its own. */
export function filesOf({
  files = [],
  variants = [],
  sheets = [],
  papers = [],
  earlier = [],
}: Partial<RefitManifest>): OwnFile[] {
  return [...earlier, ...files, ...variants, ...sheets, ...papers].map(({ path, resultHash }) => ({
    path,
    resultHash,
  }));
}
