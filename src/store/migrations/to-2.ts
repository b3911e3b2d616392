import type Database from 'libsql';
import { writeVisit2 } from './visit-2.js';
import type { Markup2, Placement2 } from './visit-2.js';

interface PlacementRow {
  readonly page_id: number;
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
  readonly loading: 'lazy' | 'eager';
  readonly fetched: string | null;
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

/** A visit becomes one document: rows of placements took most of a second to read for each 100,000. */
export function toVersion2(database: Database.Database): void {
  database.exec(`
    ALTER TABLE due ADD COLUMN visits REAL;
    ALTER TABLE page ADD COLUMN visits REAL;
    ALTER TABLE page ADD COLUMN curves TEXT NOT NULL DEFAULT '[]';
    ALTER TABLE page ADD COLUMN shape TEXT NOT NULL DEFAULT '[]';
    CREATE TABLE visit (
      page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
      view TEXT NOT NULL,
      facts TEXT NOT NULL
    );
    CREATE INDEX visit_page ON visit(page_id);
    CREATE TABLE survey_file (
      survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
      content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
      PRIMARY KEY (survey_id, content_hash)
    ) WITHOUT ROWID;
    INSERT OR IGNORE INTO survey_file
      SELECT survey_id, content_hash FROM image_response JOIN page ON page.id = page_id;
  `);
  packVisits(database);
  packCurves(database);
  database.exec(`
    DROP TABLE placement;
    DROP TABLE image_response;
    DROP TABLE slot_curve;
  `);
}

function packVisits(database: Database.Database): void {
  const byVisit = ({ page_id, view }: { page_id: number; view: string }) => `${page_id} ${view}`;
  const placements = grouped<PlacementRow>(database, 'placement', byVisit);
  const responses = grouped<ResponseRow>(database, 'image_response', byVisit);
  const add = database.prepare('INSERT INTO visit VALUES (?, ?, ?)');
  for (const visit of new Set([...placements.keys(), ...responses.keys()])) {
    const space = visit.indexOf(' ');
    const document = writeVisit2({
      placements: (placements.get(visit) ?? []).map(placementOf),
      responses: (responses.get(visit) ?? []).map(responseOf),
    });
    add.run(Number(visit.slice(0, space)), visit.slice(space + 1), document);
  }
}

function packCurves(database: Database.Database): void {
  const set = database.prepare('UPDATE page SET curves = ? WHERE id = ?');
  const byPage = grouped<CurveRow>(database, 'slot_curve', ({ page_id }) => String(page_id));
  for (const [page, rows] of byPage) {
    const curves = rows.map(({ kind, selector, pieces }) => ({
      kind,
      selector,
      pieces: JSON.parse(pieces) as unknown,
    }));
    set.run(JSON.stringify(curves), Number(page));
  }
}

function grouped<Row>(
  database: Database.Database,
  table: string,
  keyOf: (row: Row) => string,
): Map<string, Row[]> {
  const groups = new Map<string, Row[]>();
  const rows = database.prepare(`SELECT * FROM ${table} ORDER BY page_id`).all() as Row[];
  for (const row of rows) {
    const key = keyOf(row);
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  return groups;
}

function placementOf(row: PlacementRow): Placement2 {
  const details = JSON.parse(row.details) as {
    readonly drawn: unknown;
    readonly naturalDensity: number;
    readonly markup: Markup2 | null;
  };
  return {
    kind: row.kind,
    selector: row.selector,
    url: row.url,
    contentHash: row.content_hash,
    slot: { width: row.slot_width, height: row.slot_height },
    fit: row.fit,
    aboveFold: row.above_fold === 1,
    shown: row.shown === 1,
    loading: row.loading,
    fetched: row.fetched,
    drawn: details.drawn,
    naturalDensity: details.naturalDensity,
    markup: details.markup,
  };
}

function responseOf(row: ResponseRow): Readonly<Record<string, unknown>> {
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
