import type { RefitManifest } from '../../core/refit/refit-manifest.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';

/** What a refit is told from. */
export interface RefitDocumentSource {
  readonly manifest: RefitManifest;
  readonly folder: string;
  readonly dryRun: boolean;
  readonly unchanged: number;
  readonly worklist: readonly WorkItem[];
  readonly zipped: string | null;
}

/** A refit as the document `zealous-lynx.refit/1`: its manifest and what was written. */
export function refitDocument(source: RefitDocumentSource) {
  const { manifest, folder, dryRun, unchanged, worklist, zipped } = source;
  return { ...manifest, folder, dryRun, unchanged, worklist, zip: zipped };
}
