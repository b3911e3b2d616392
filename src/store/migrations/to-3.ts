import type Database from 'libsql';
import { readVisit2 } from './visit-2.js';
import type { Placement2, Visit2 } from './visit-2.js';

/**
 * Reading a million rows of placements took too long, so repeated content is stored once. Older encodes do not
 * record their quality: they are made again when needed.
 */
export function toVersion3(database: Database.Database): void {
  database.exec(`
    CREATE TABLE term (
      id INTEGER PRIMARY KEY,
      survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
      text TEXT NOT NULL,
      UNIQUE (survey_id, text)
    );
    DROP TABLE encoded;
    CREATE TABLE encoded (
      content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
      need_width INTEGER NOT NULL,
      need_height INTEGER NOT NULL,
      policy TEXT NOT NULL,
      result_hash TEXT,
      result TEXT NOT NULL,
      PRIMARY KEY (content_hash, need_width, need_height, policy)
    );
  `);
  const termOf = termsOf(database);
  shareVisits(database, termOf);
  shareCurves(database, termOf);
}

type TermOf = (surveyId: number, text: string) => number;

function termsOf(database: Database.Database): TermOf {
  const insert = database.prepare('INSERT INTO term (survey_id, text) VALUES (?, ?)');
  const known = new Map<string, number>();
  return (surveyId, text) => {
    const key = `${surveyId} ${text}`;
    const id = known.get(key) ?? Number(insert.run(surveyId, text).lastInsertRowid);
    known.set(key, id);
    return id;
  };
}

function shareVisits(database: Database.Database, termOf: TermOf): void {
  const visits = database
    .prepare('SELECT visit.rowid AS id, survey_id, facts FROM visit JOIN page ON page.id = page_id')
    .all() as { id: number; survey_id: number; facts: string }[];
  const set = database.prepare('UPDATE visit SET facts = ? WHERE rowid = ?');
  for (const { id, survey_id, facts } of visits)
    set.run(
      writeVisit3(readVisit2(facts), (text) => termOf(survey_id, text)),
      id,
    );
}

interface Curve2 {
  readonly kind: string;
  readonly selector: string;
  readonly pieces: unknown;
}

function shareCurves(database: Database.Database, termOf: TermOf): void {
  const pages = database.prepare('SELECT id, survey_id, curves FROM page').all() as {
    id: number;
    survey_id: number;
    curves: string;
  }[];
  const set = database.prepare('UPDATE page SET curves = ? WHERE id = ?');
  for (const { id, survey_id, curves } of pages) {
    const terms = (JSON.parse(curves) as Curve2[]).flatMap(({ kind, selector, pieces }) => [
      termOf(survey_id, `${kind} ${selector}`),
      termOf(survey_id, JSON.stringify(pieces)),
    ]);
    set.run(JSON.stringify(terms), id);
  }
}

/** A visit as the third version stores it: four numbers of terms for a placement, one for a response; 0 means none. */
function writeVisit3({ placements, responses }: Visit2, term: (text: string) => number): string {
  return JSON.stringify({
    placements: placements.flatMap((placement) => [
      term(shapeText(placement)),
      term(placement.url),
      placement.markup?.alt == null ? 0 : term(`alt ${placement.markup.alt}`),
      placement.contentHash === null ? 0 : term(placement.contentHash),
    ]),
    responses: responses.map((response) => term(JSON.stringify(response))),
  });
}

function shapeText(placement: Placement2): string {
  const { kind, selector, slot, fit, fetched, drawn, naturalDensity, markup } = placement;
  const flags =
    (placement.aboveFold ? 1 : 0) |
    (placement.shown ? 2 : 0) |
    (placement.loading === 'lazy' ? 4 : 0);
  return JSON.stringify([
    ...[kind, selector, slot.width, slot.height, fit, flags, fetched, drawn, naturalDensity],
    markup && [
      markup.srcset ?? null,
      markup.sizes ?? null,
      markup.fetchPriority ?? 'auto',
      markup.decoding ?? 'auto',
      markup.dimensions ?? true,
    ],
  ]);
}
