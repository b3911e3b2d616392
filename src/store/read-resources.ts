import type Database from 'libsql';
import type { Resource, Resources, TextFacts } from '../core/survey/resource.js';
import { allRows } from './all-rows.js';
import type { TermStore } from './terms.js';
import type { TextStore } from './texts.js';

/** The resources of a survey, for each of its visits in the order in which they are read elsewhere. */
export function readResources(
  database: Database.Database,
  terms: TermStore,
  texts: TextStore,
  surveyId: number,
): Resources {
  const rows = allRows<[string]>(
    database,
    ['resources'],
    `SELECT resources FROM visit
     JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY page_id, visit.rowid`,
  )(surveyId);
  const kept = terms.texts(surveyId);
  const list: Resource[] = [];
  const places = new Map<number, number>();
  const placeOf = (number: number) => {
    let place = places.get(number);
    if (place === undefined) {
      places.set(number, (place = list.length));
      list.push(JSON.parse(kept.get(number)!) as Resource);
    }
    return place;
  };
  const ofVisit = rows.map(([numbers]) => (JSON.parse(numbers) as number[]).map(placeOf));
  const known = new Map<string, TextFacts>();
  for (const { contentHash } of list) {
    const facts = contentHash !== null && !known.has(contentHash) && texts.get(contentHash);
    if (facts) known.set(facts.contentHash, facts);
  }
  return { list, ofVisit, texts: known };
}
