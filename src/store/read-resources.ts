import type { Database } from './database.js';
import type { Resource, Resources } from '../core/survey/resource.js';
import { LoadReader } from './load-document.js';
import { visitOrder } from './visit-order.js';
import type { TermStore } from './terms.js';
import type { TextStore } from './texts.js';

/** What older versions did not keep. */
const unknown = { initiator: 'other', initiatedBy: null, redirects: [], cookieBytes: 0, times: 1 };

/** The resources of a survey, for each of its visits in the order in which they are read elsewhere. */
export function readResources(
  database: Database,
  terms: TermStore,
  texts: TextStore,
  surveyId: number,
): Resources {
  const rows = database.rows<[resources: string, load: string]>(
    ['resources', 'load'],
    `SELECT resources, load FROM visit
     JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY ${visitOrder}`,
  )(surveyId);
  const kept = terms.texts(surveyId);
  const list: Resource[] = [];
  const places = new Map<number, number>();
  const placeOf = (number: number) => {
    let place = places.get(number);
    if (place === undefined) {
      places.set(number, (place = list.length));
      list.push({ ...unknown, ...(JSON.parse(kept.get(number)!) as Resource) });
    }
    return place;
  };
  const ofVisit = rows.map(([numbers]) => (JSON.parse(numbers) as number[]).map(placeOf));
  const reader = new LoadReader(kept);
  return {
    list,
    ofVisit,
    texts: texts.ofSurvey(surveyId),
    loads: rows.map(([, load]) => reader.read(load)),
  };
}
