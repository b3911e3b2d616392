import type { BytesByType } from '../core/load/request.js';
import type { SurveyHead, SurveyedPage } from '../core/survey/survey.js';
import type { View } from '../core/visitors/view.js';

export interface SurveyRow {
  readonly id: number;
  readonly label: string;
  readonly started_at: string;
  readonly finished_at: string | null;
  readonly starts: string;
  readonly views: string;
  readonly plan: string;
  readonly thinned_at: string | null;
}

export const pageColumns = [
  'url',
  'final_url',
  'status',
  'depth',
  'visits',
  'page_group',
  'error',
  'bytes_by_type',
] as const;

export type PageRow = readonly [
  url: string,
  finalUrl: string,
  status: number | null,
  depth: number,
  visits: number | null,
  group: string | null,
  error: string | null,
  bytesByType: string,
];

export function toPage([
  url,
  finalUrl,
  status,
  depth,
  visits,
  group,
  error,
  bytesByType,
]: PageRow): SurveyedPage {
  const bytes = JSON.parse(bytesByType) as BytesByType;
  return { url, finalUrl, status, depth, visits, group, error, bytesByType: bytes };
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
