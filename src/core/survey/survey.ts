import type { BytesByType } from '../load/request.js';
import type { ImageFile } from './image-file.js';
import type { Encoded } from './encoded.js';
import type { PictureUse } from './picture-use.js';
import type { Pictures } from './pictures.js';
import type { PlacementTable, ResponseTable, VisitKey } from './survey-tables.js';
import type { View } from '../visitors/view.js';

/** A survey without what it found. */
export interface SurveyHead {
  readonly id: number;
  readonly label: string;
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  /** ISO 8601, UTC; `null` while it runs, and for ever when it was interrupted. */
  readonly finishedAt: string | null;
  readonly starts: readonly string[];
  readonly views: readonly View[];
}

/** A survey in the list of all. */
export interface SurveySummary extends SurveyHead {
  readonly pages: number;
  readonly skipped: number;
  /** Image files that it found, and their bytes. */
  readonly files: number;
  readonly bytes: number;
  /** When it was thinned out to its figures, ISO 8601, UTC; `null` where it is whole. */
  readonly thinnedAt: string | null;
}

/** The settings of a survey, stored so that it can be resumed as it started. */
export interface SurveyPlan {
  /** Starts as they were given: addresses and folders. */
  readonly given: readonly string[];
  /** One address on each host of the pages given, by any option. */
  readonly hosts: readonly string[];
  /** Settings of the crawl, as the crawl understands them. */
  readonly scope: Readonly<Record<string, unknown>>;
}

/** A page that was found and is to be visited. */
export interface DuePage {
  readonly url: string;
  /** Links followed from a start. */
  readonly depth: number;
  /** Visits a month, from a list of pages; `null` if unknown. */
  readonly visits: number | null;
}

/** One page of a survey, over all its views. */
export interface SurveyedPage {
  readonly url: string;
  readonly finalUrl: string;
  /** HTTP status, or `null` without a response. */
  readonly status: number | null;
  /** Links followed from a start. */
  readonly depth: number;
  /** Visits a month, from a list of pages; `null` if unknown. */
  readonly visits: number | null;
  /** The page group it belongs to; `null` as long as the survey goes on. */
  readonly group: string | null;
  readonly error: string | null;
  /** Bytes on the wire in the heaviest view. */
  readonly bytesByType: BytesByType;
}

/** An address that was found but not loaded, and why. */
export interface SkippedAddress {
  readonly url: string;
  readonly reason: string;
}

/** A page in a view, and whether there was anything to be measured. */
export interface SurveyedVisit extends VisitKey {
  readonly measured: boolean;
}

/** Everything a survey found. */
export interface SurveyFacts {
  readonly head: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly visits: readonly SurveyedVisit[];
  /** Image files that arrived. */
  readonly files: readonly ImageFile[];
  readonly placements: PlacementTable;
  readonly responses: ResponseTable;
  /** The pictures that its pages name without showing them there. */
  readonly uses: readonly PictureUse[];
  readonly encoded: readonly Encoded[];
  /** Which of its files are one picture. */
  readonly pictures: Pictures;
}
