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
  readonly visits: number | null;
  readonly page_group: string | null;
  readonly error: string | null;
  readonly bytes_by_type: string;
}

export function toPage(row: PageRow): SurveyedPage {
  return {
    url: row.url,
    finalUrl: row.final_url,
    status: row.status,
    depth: row.depth,
    visits: row.visits,
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
