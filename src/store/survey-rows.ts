import type { ImageResponse } from '../core/image-file.js';
import type { Placement, PlacementKind, SlotCurve } from '../core/placement.js';
import type { ObjectFit } from '../core/rendered-size.js';
import type { BytesByType } from '../core/request.js';
import type { SurveyHead, SurveyedPage } from '../core/survey.js';
import type { View } from '../core/view.js';

export interface SurveyRow {
  readonly id: number;
  readonly label: string;
  readonly started_at: string;
  readonly finished_at: string | null;
  readonly starts: string;
  readonly views: string;
  readonly plan: string;
}

export interface PageRow {
  readonly url: string;
  readonly final_url: string;
  readonly status: number | null;
  readonly depth: number;
  readonly page_group: string | null;
  readonly error: string | null;
  readonly bytes_by_type: string;
}

export interface PlacementRow {
  readonly page: string;
  readonly view: string;
  readonly kind: string;
  readonly selector: string;
  readonly url: string;
  readonly content_hash: string | null;
  readonly slot_width: number;
  readonly slot_height: number;
  readonly fit: string;
  readonly above_fold: number;
  readonly shown: number;
  readonly loading: string;
  readonly fetched: string | null;
  /** The rest of a placement, as JSON. */
  readonly details: string;
}

export type Details = Pick<Placement, 'drawn' | 'naturalDensity' | 'markup'>;

export interface CurveRow {
  readonly page: string;
  readonly kind: string;
  readonly selector: string;
  readonly pieces: string;
}

export interface ResponseRow {
  readonly page: string;
  readonly view: string;
  readonly url: string;
  readonly content_hash: string;
  readonly declared_type: string;
  readonly transfer_bytes: number;
  readonly third_party: number;
}

export function toPlacement(row: PlacementRow): Placement {
  return {
    page: row.page,
    view: row.view,
    kind: row.kind as PlacementKind,
    selector: row.selector,
    url: row.url,
    contentHash: row.content_hash,
    slot: { width: row.slot_width, height: row.slot_height },
    fit: row.fit as ObjectFit,
    aboveFold: row.above_fold === 1,
    shown: row.shown === 1,
    loading: row.loading as Placement['loading'],
    fetched: row.fetched as Placement['fetched'],
    ...(JSON.parse(row.details) as Details),
  };
}

export function toCurve(row: CurveRow): SlotCurve {
  return {
    page: row.page,
    kind: row.kind as PlacementKind,
    selector: row.selector,
    pieces: JSON.parse(row.pieces) as SlotCurve['pieces'],
  };
}

export function toResponse(row: ResponseRow): ImageResponse {
  return {
    page: row.page,
    view: row.view,
    url: row.url,
    contentHash: row.content_hash,
    declaredType: row.declared_type,
    transferBytes: row.transfer_bytes,
    thirdParty: row.third_party === 1,
  };
}

export function toPage(row: PageRow): SurveyedPage {
  return {
    url: row.url,
    finalUrl: row.final_url,
    status: row.status,
    depth: row.depth,
    group: row.page_group,
    error: row.error,
    bytesByType: JSON.parse(row.bytes_by_type) as BytesByType,
  };
}

export function toHead(row: SurveyRow): SurveyHead {
  return {
    id: row.id,
    label: row.label,
    startedAt: row.started_at,
    finishedAt: row.finished_at,
    starts: JSON.parse(row.starts) as string[],
    views: JSON.parse(row.views) as View[],
  };
}
