/** What tests read of the manifest of a refit. */
export interface RefitManifestDocument {
  readonly survey: string | null;
  readonly files: readonly {
    readonly path: string;
    readonly originals: readonly string[];
    readonly resultHash: string;
    readonly mediaType: string;
    readonly pixelsFrom: string | null;
    readonly to: {
      readonly width: number | null;
      readonly height: number | null;
      readonly bytes: number;
    };
  }[];
  readonly variants: readonly {
    readonly path: string;
    readonly resultHash: string;
    readonly use: string;
    readonly mediaType: string;
    readonly width: number;
    readonly bytes: number;
  }[];
  readonly kept: readonly { readonly url: string; readonly reason: string }[];
  readonly notMade: readonly { readonly path: string; readonly reason: string }[];
  readonly collisions: readonly { readonly wanted: string; readonly path: string }[];
  readonly papers: readonly { readonly path: string }[];
  readonly worklist: readonly {
    readonly who: string;
    readonly what: string;
    readonly url: string;
    readonly savedPerVisit: number;
  }[];
  readonly unchanged: number;
}
