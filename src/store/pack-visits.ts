import type Database from 'libsql';
import { groupBy } from '../core/base/group-by.js';
import type { ImageResponse } from '../core/survey/image-file.js';
import type { Placement } from '../core/slots/placement.js';
import { packVisit } from './packed-visit.js';

interface PlacementRow {
  readonly page_id: number;
  readonly view: string;
  readonly kind: Placement['kind'];
  readonly selector: string;
  readonly url: string;
  readonly content_hash: string | null;
  readonly slot_width: number;
  readonly slot_height: number;
  readonly fit: Placement['fit'];
  readonly above_fold: number;
  readonly shown: number;
  readonly loading: Placement['loading'];
  readonly fetched: Placement['fetched'];
  readonly details: string;
}

interface ResponseRow {
  readonly page_id: number;
  readonly view: string;
  readonly url: string;
  readonly content_hash: string;
  readonly declared_type: string;
  readonly transfer_bytes: number;
  readonly third_party: number;
}

interface CurveRow {
  readonly page_id: number;
  readonly kind: string;
  readonly selector: string;
  readonly pieces: string;
}

/** Turns the rows of the first version's workspaces into one document a visit. */
export function packVisits(database: Database.Database): void {
  const all = <Row>(table: string) =>
    database.prepare(`SELECT * FROM ${table} ORDER BY page_id`).all() as Row[];
  const key = ({ page_id, view }: { page_id: number; view: string }) => `${page_id} ${view}`;
  const placements = groupBy(all<PlacementRow>('placement'), key);
  const responses = groupBy(all<ResponseRow>('image_response'), key);
  const add = database.prepare('INSERT INTO visit VALUES (?, ?, ?)');
  for (const visit of new Set([...placements.keys(), ...responses.keys()])) {
    const space = visit.indexOf(' ');
    const view = visit.slice(space + 1);
    const facts = {
      view,
      placements: (placements.get(visit) ?? []).map(placementOf),
      responses: (responses.get(visit) ?? []).map(responseOf),
    };
    add.run(Number(visit.slice(0, space)), view, packVisit(facts));
  }
  const setCurves = database.prepare('UPDATE page SET curves = ? WHERE id = ?');
  for (const [page, rows] of groupBy(all<CurveRow>('slot_curve'), ({ page_id }) => page_id)) {
    const curves = rows.map(({ kind, selector, pieces }) => ({
      kind,
      selector,
      pieces: JSON.parse(pieces) as unknown,
    }));
    setCurves.run(JSON.stringify(curves), page);
  }
}

function placementOf(row: PlacementRow): Omit<Placement, 'page' | 'view'> {
  return {
    kind: row.kind,
    selector: row.selector,
    url: row.url,
    contentHash: row.content_hash,
    slot: { width: row.slot_width, height: row.slot_height },
    fit: row.fit,
    aboveFold: row.above_fold === 1,
    aside: false,
    largest: false,
    shown: row.shown === 1,
    loading: row.loading,
    fetched: row.fetched,
    ...(JSON.parse(row.details) as Pick<Placement, 'drawn' | 'naturalDensity' | 'markup'>),
  };
}

function responseOf(row: ResponseRow): Omit<ImageResponse, 'page' | 'view'> {
  return {
    url: row.url,
    contentHash: row.content_hash,
    problem: null,
    status: 200,
    redirects: [],
    declaredType: row.declared_type,
    protocol: '',
    headers: {},
    transferBytes: row.transfer_bytes,
    thirdParty: row.third_party === 1,
    initiator: 'other',
  };
}
