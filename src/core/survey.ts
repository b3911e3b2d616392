import type { BytesByType } from './request.js';
import type { ImageFile } from './image-file.js';
import type { Size } from './size.js';
import type { EncodedSteps } from './waste.js';
import type { EncodedFormat, Nature } from './policy.js';
import type { AnswerTable, PlacementTable } from './survey-tables.js';
import type { View } from './view.js';
import type { VisitKey } from './weight.js';

/** What a survey is, apart from what it found. */
export interface SurveyHead {
  readonly id: number;
  readonly label: string;
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  /** ISO 8601, UTC; `null` while it runs, and for ever when it was broken off. */
  readonly finishedAt: string | null;
  readonly starts: readonly string[];
  readonly views: readonly View[];
}

/** A survey in the list of all. */
export interface SurveyEntry extends SurveyHead {
  readonly pages: number;
  readonly skipped: number;
  /** Image files that it found, and their bytes. */
  readonly files: number;
  readonly bytes: number;
}

/** How a survey is to be made, kept so that it can be taken up again as it was begun. */
export interface SurveyPlan {
  /** Starts as they were given: addresses and folders. */
  readonly given: readonly string[];
  /** One address on each host that pages were given on, by whatever means. */
  readonly hosts: readonly string[];
  /** Settings of the crawl, as the crawl understands them. */
  readonly scope: Readonly<Record<string, unknown>>;
}

/** A page that was found and is to be visited. */
export interface DuePage {
  readonly url: string;
  /** Links followed from a start. */
  readonly depth: number;
  /** Visits a month, as a list of pages says; `null` when nobody said. */
  readonly visits: number | null;
}

/** One page of a survey, over all its views. */
export interface SurveyedPage {
  readonly url: string;
  readonly finalUrl: string;
  /** HTTP status, or `null` when no answer came. */
  readonly status: number | null;
  /** Links followed from a start. */
  readonly depth: number;
  /** Visits a month, as a list of pages says; `null` when nobody said. */
  readonly visits: number | null;
  /** The page group it belongs to; `null` as long as the survey goes on. */
  readonly group: string | null;
  readonly error: string | null;
  /** Bytes on the wire in the heaviest view. */
  readonly bytesByType: BytesByType;
}

/** An address that was found and not loaded, and why. */
export interface SkippedAddress {
  readonly url: string;
  readonly reason: string;
}

/** One encode that was made on the way to the file that an image should be. */
export interface Trial {
  readonly format: EncodedFormat;
  /** The encoder's quality, 1 to 100; `null` where every pixel is kept. */
  readonly quality: number | null;
  readonly bytes: number;
  /** Structural similarity to the ideal reduction, at most 1. */
  readonly similarity: number;
}

/** The file that an image should be, as it was really encoded. */
export interface Encoded {
  readonly contentHash: string;
  /** The largest need over all placements; `null` for a vector, which has no pixels. */
  readonly need: Size | null;
  readonly nature: Nature | 'vector';
  /** `svg` for a vector, which stays one. */
  readonly format: EncodedFormat | 'svg';
  readonly steps: EncodedSteps;
  readonly trials: readonly Trial[];
  /** SHA-256 of the encoded body, which is kept in the workspace; `null` where there is none. */
  readonly resultHash: string | null;
  /** Why it could not be encoded, when it could not. */
  readonly problem: string | null;
}

/** A page in a view, and whether there was anything to be measured. */
export interface SurveyedVisit extends VisitKey {
  readonly measured: boolean;
}

/** All that a survey found. */
export interface SurveyFacts {
  readonly head: SurveyHead;
  readonly pages: readonly SurveyedPage[];
  readonly visits: readonly SurveyedVisit[];
  /** Image files that arrived. */
  readonly files: readonly ImageFile[];
  readonly placements: PlacementTable;
  readonly responses: AnswerTable;
  readonly encoded: readonly Encoded[];
}
