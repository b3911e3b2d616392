import type { RequestType } from '../load/request.js';

/** What a survey adds up to; bytes are whole, and those of an average visit. */
export interface FigureSums {
  /** On the wire. */
  readonly bytes: number;
  readonly bytesByType: Readonly<Record<RequestType, number>>;
  readonly thirdPartyBytes: number;
  /** Requests of a thousand average visits, so that they are whole. */
  readonly requests: number;
  /** Of images. */
  readonly wasteBytes: number;
  readonly neededBytes: number;
  readonly unknownBytes: number;
}

/** Something that was sent: an image file, or what else an address answered with. */
export interface FileFigure {
  readonly url: string;
  readonly type: RequestType;
  readonly contentHash: string | null;
  readonly bodyBytes: number;
  readonly bytes: number;
  /** Of a thousand average visits. */
  readonly requests: number;
  readonly wasteBytes: number;
  /** Its content encoding, and how long it may be kept. */
  readonly delivery: { readonly encoding: string; readonly lifetime: string };
  /** The domain that sent it, where that is a third party's. */
  readonly party: string | null;
  /** The pages that were sent it: how many, and the first. */
  readonly pages: number;
  readonly firstPage: string;
}

/** A page's part of the sums. */
export interface PageFigure {
  readonly url: string;
  readonly group: string;
  readonly bytes: number;
  readonly requests: number;
  readonly wasteBytes: number;
}

/** A survey in numbers: what is left of it when it is thinned out. The files add up to the sums, and so do the pages. */
export interface SurveyFigures {
  readonly survey: { readonly id: number; readonly label: string; readonly startedAt: string };
  readonly pages: number;
  readonly failedPages: number;
  readonly views: readonly string[];
  readonly sums: FigureSums;
  /** How many findings of each kind there are, by id. */
  readonly findings: Readonly<Record<string, number>>;
  readonly files: readonly FileFigure[];
  readonly ofPages: readonly PageFigure[];
}

/** What can be asked how it moved. */
export const figureMeasures = ['bytes', 'waste', 'requests'] as const;
export type FigureMeasure = (typeof figureMeasures)[number];

/** One number of a file or a page; requests are those of a thousand visits. */
export function figureOf(
  { bytes, requests, wasteBytes }: Pick<FileFigure, 'bytes' | 'requests' | 'wasteBytes'>,
  measure: FigureMeasure,
): number {
  return { bytes, requests, waste: wasteBytes }[measure];
}
