import { noBytes } from '../../core/load/request.js';
import type { BytesByType } from '../../core/load/request.js';
import type { FoundPlacement, SlotCurve } from '../../core/slots/placement.js';
import { noSketch } from '../../core/survey/document-sketch.js';
import type { DocumentSketch } from '../../core/survey/document-sketch.js';
import type { LoadFacts } from '../../core/survey/load-facts.js';
import type { PageScreen } from '../../core/survey/page-screen.js';
import type { NamingFile, PictureUse } from '../../core/survey/picture-use.js';
import type { Resource } from '../../core/survey/resource.js';
import type { ImageAnswer } from '../network/image-responses.js';
import type { NetworkRecorder } from '../network/network-recorder.js';
import { headerOf } from '../network/recorded-request.js';

/** The result of visiting one page in one view. */
export interface Visit {
  readonly view: string;
  readonly finalUrl: string;
  readonly status: number | null;
  readonly mediaType: string;
  /** Why there is nothing to measure; absent if there is. */
  readonly error: string | null;
  /** What went wrong though the page was measured. */
  readonly warning: string | null;
  /** Set if it failed but may succeed next time: the `Retry-After` of the response, if it had one. */
  readonly passing: {
    readonly retryAfter: string | undefined;
    /** Whether it is worth one more attempt and no other: it costs the whole time of a visit. */
    readonly isOnce: boolean;
  } | null;
  readonly links: readonly string[];
  /** Links to the page itself in another state that it asks not to follow. */
  readonly ownLinks: readonly string[];
  /** A digest of what the document shows; empty when there is none. */
  readonly digest: string;
  /** The page's canonical address (`rel=canonical`), or `null`. */
  readonly canonical: string | null;
  /** The pictures that the document names without showing them there. */
  readonly uses: readonly Omit<PictureUse, 'page'>[];
  /** The feeds and the manifest that it points to. */
  readonly namingFiles: readonly NamingFile[];
  /** Sketch of the document; empty when there is none. */
  readonly shape: DocumentSketch;
  readonly placements: readonly FoundPlacement[];
  /** The slot curves, from the one visit that sweeps the page; none from the others. */
  readonly curves: readonly Omit<SlotCurve, 'page'>[];
  readonly images: readonly ImageAnswer[];
  /** What it was sent besides. */
  readonly resources: readonly Omit<Resource, 'thirdParty'>[];
  /** Addresses that it wanted and that were not connected to, with the reason. */
  readonly stopped: readonly { readonly url: string; readonly reason: string }[];
  /** How it loaded; `null` if it did not. */
  readonly load: LoadFacts | null;
  /** Where its placements stand; `null` if it did not load. */
  readonly screen: PageScreen | null;
  /** Bytes on the wire of a first visit. */
  readonly bytesByType: BytesByType;
}

/** What is known of a visit that failed. */
export interface FailedVisitOptions {
  readonly recorder?: NetworkRecorder | undefined;
  /** Whether it may succeed next time. */
  readonly passing?: boolean;
  /** Whether it is worth one more attempt and no other. */
  readonly isOnce?: boolean;
}

/** The result of a visit that failed. */
export function failedVisit(
  view: string,
  url: string,
  error: string,
  { recorder, passing = false, isOnce = false }: FailedVisitOptions,
): Visit {
  const answer = recorder?.document;
  const retryAfter = answer && headerOf(answer, 'retry-after');
  return {
    view,
    finalUrl: answer?.url ?? url,
    status: answer?.status || null,
    mediaType: answer?.mediaType ?? '',
    error,
    warning: null,
    passing: passing ? { retryAfter, isOnce } : null,
    links: [],
    ownLinks: [],
    digest: '',
    canonical: null,
    shape: noSketch,
    uses: [],
    namingFiles: [],
    placements: [],
    curves: [],
    images: [],
    resources: [],
    stopped: [],
    load: null,
    screen: null,
    bytesByType: noBytes(),
  };
}

/** Problems of a visit in one line; `null` if there are none. */
export function warningOf(problems: readonly (string | null)[]): string | null {
  return problems.filter((words) => words !== null).join('; ') || null;
}
