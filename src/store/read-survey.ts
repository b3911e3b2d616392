import type Database from 'libsql';
import type { ImageFile } from '../core/image-file.js';
import type { CurvePiece } from '../core/slot-curve.js';
import { AnswerTable, ColumnBuilder, Dictionary, PlacementTable } from '../core/survey-tables.js';
import type { CurveOf } from '../core/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../core/survey.js';
import { elementText } from './curves-document.js';
import type { TermStore } from './terms.js';
import {
  fromVisitDocument,
  noTerm,
  numbersPerPlacement,
  readAlt,
  readAnswer,
  readShape,
} from './visit-document.js';

type VisitRow = [pageId: number, url: string, status: number | null, view: string, facts: string];

/** The visits of a survey with their placements and answers, as tables. */
export function readVisits(
  database: Database.Database,
  terms: TermStore,
  surveyId: number,
  files: readonly ImageFile[],
): Pick<SurveyFacts, 'visits' | 'placements' | 'responses' | 'curveOf'> {
  const texts = terms.texts(surveyId);
  const textOf = (term: number) => texts.get(term) ?? '';
  const shapes = new Dictionary((term: number) => readShape(textOf(term)));
  const addresses = new Dictionary((term: number) =>
    term < 0 ? readAlt(textOf(-term)) : textOf(term),
  );
  const answers = new Dictionary((term: number) => readAnswer(textOf(term)));
  const places = new Map(files.map(({ contentHash }, place) => [contentHash, place]));
  const fileOf = (contentHash: string | null | undefined) => places.get(contentHash ?? '') ?? -1;
  const placed = new ColumnBuilder(['visit', 'shape', 'url', 'alt', 'file']);
  const answered = new ColumnBuilder(['visit', 'answer', 'file']);
  const visits: SurveyedVisit[] = [];
  const pageIds: number[] = [];
  const rows = database
    .prepare(
      `SELECT page_id, url, status, view, facts FROM visit
       JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY page_id, visit.rowid`,
    )
    .raw()
    .iterate(surveyId) as Iterable<VisitRow>;
  for (const [pageId, url, status, view, facts] of rows) {
    const { placements, responses } = fromVisitDocument(facts);
    const found = placements.length + responses.length > 0;
    const visit = visits.length;
    visits.push({ page: url, view, measured: found || (status !== null && status < 400) });
    pageIds.push(pageId);
    for (let at = 0; at < placements.length; at += numbersPerPlacement) {
      const alt = placements[at + 2]!;
      placed.push(
        visit,
        shapes.placeOf(placements[at]!),
        addresses.placeOf(placements[at + 1]!),
        // An address and an alternative text may be the same term, and are not read alike.
        alt === noTerm ? -1 : addresses.placeOf(-alt),
        fileOf(textOf(placements[at + 3]!)),
      );
    }
    for (const response of responses) {
      const answer = answers.placeOf(response);
      answered.push(visit, answer, fileOf(answers.values[answer]!.contentHash));
    }
  }
  const contents = files.map(({ contentHash }) => contentHash);
  return {
    visits,
    placements: new PlacementTable(
      placed.done(),
      shapes.values,
      addresses.values,
      visits,
      contents,
    ),
    responses: new AnswerTable(answered.done(), answers.values, visits),
    curveOf: curvesOf(database, pageIds, textOf),
  };
}

/** Reads the slot curves of a page when one of them is first asked for. */
function curvesOf(
  database: Database.Database,
  pageIds: readonly number[],
  textOf: (term: number) => string,
): CurveOf {
  const find = database.prepare('SELECT curves FROM page WHERE id = ?');
  const pieces = new Dictionary((term: number) => JSON.parse(textOf(term)) as CurvePiece[]);
  const pages = new Map<number, Map<string, readonly CurvePiece[]>>();
  return (visit, element) => {
    const page = pageIds[visit]!;
    let curves = pages.get(page);
    if (!curves) {
      const { curves: kept } = find.get(page) as { curves: string };
      const numbers = JSON.parse(kept) as number[];
      curves = new Map();
      for (let at = 0; at < numbers.length; at += 2)
        curves.set(textOf(numbers[at]!), pieces.values[pieces.placeOf(numbers[at + 1]!)]!);
      pages.set(page, curves);
    }
    return curves.get(elementText(element)) ?? null;
  };
}
