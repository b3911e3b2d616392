import type Database from 'libsql';
import type { SlotCurve } from '../core/slots/placement.js';
import { unpackVisit } from './packed-visit.js';
import { curvesText } from './curves-document.js';
import { TermStore } from './terms.js';
import { toVisitDocument } from './visit-document.js';

/** Turns the visits of the second version's workspaces into numbers of terms. */
export function shareTerms(database: Database.Database): void {
  const terms = new TermStore(database);
  const visits = database
    .prepare(
      `SELECT visit.rowid AS id, survey_id, view, facts FROM visit JOIN page ON page.id = page_id`,
    )
    .all() as { id: number; survey_id: number; view: string; facts: string }[];
  const setFacts = database.prepare('UPDATE visit SET facts = ? WHERE rowid = ?');
  for (const { id, survey_id, view, facts } of visits) {
    const term = (text: string) => terms.numberOf(survey_id, text);
    setFacts.run(toVisitDocument(unpackVisit(facts, view), term), id);
  }
  const pages = database.prepare('SELECT id, survey_id, curves FROM page').all() as {
    id: number;
    survey_id: number;
    curves: string;
  }[];
  const setCurves = database.prepare('UPDATE page SET curves = ? WHERE id = ?');
  for (const { id, survey_id, curves } of pages) {
    const kept = JSON.parse(curves) as Omit<SlotCurve, 'page'>[];
    setCurves.run(
      curvesText(kept, (text) => terms.numberOf(survey_id, text)),
      id,
    );
  }
}
