import type Database from 'libsql';
import type { ImageFile } from '../core/image-file.js';
import type { CurvePiece } from '../core/slot-curve.js';
import { AnswerTable, PlacementTable } from '../core/survey-tables.js';
import type {
  AnswerColumns,
  CurveOf,
  PlacementColumns,
  PlacementShape,
} from '../core/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../core/survey.js';
import { allRows } from './all-rows.js';
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
  const rows = allRows<VisitRow>(
    database,
    ['page_id', 'url', 'status', 'view', 'facts'],
    `SELECT page_id, url, status, view, facts FROM visit
     JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY page_id, visit.rowid`,
  )(surveyId);
  const documents = rows.map(([, , , , facts]) => fromVisitDocument(facts));
  const visits = rows.map(([, page, status, view], at): SurveyedVisit => {
    const { placements, responses } = documents[at]!;
    const found = placements.length + responses.length > 0;
    return { page, view, measured: found || (status !== null && status < 400) };
  });
  const places = new Map(files.map(({ contentHash }, place) => [contentHash, place]));
  const fileOf = (contentHash: string | null) => places.get(contentHash ?? '') ?? -1;

  const shapes = new Terms(texts, readShape);
  const addresses = new Terms(texts, (text) => text);
  const alts = new Terms(texts, readAlt);
  const hashes = new Terms(texts, fileOf);
  const answers = new Terms(texts, readAnswer);
  const placed = emptyColumns(
    sum(documents.map(({ placements }) => placements.length / numbersPerPlacement)),
    ['visit', 'shape', 'url', 'alt', 'file'],
  ) satisfies PlacementColumns;
  const answered = emptyColumns(sum(documents.map(({ responses }) => responses.length)), [
    'visit',
    'answer',
    'file',
  ]) satisfies AnswerColumns;
  let row = 0;
  let answer = 0;
  documents.forEach(({ placements, responses }, visit) => {
    for (let at = 0; at < placements.length; at += numbersPerPlacement, row++) {
      const hash = placements[at + 3]!;
      placed.visit[row] = visit;
      placed.shape[row] = shapes.placeOf(placements[at]!);
      placed.url[row] = addresses.placeOf(placements[at + 1]!);
      placed.alt[row] = alts.placeOf(placements[at + 2]!);
      placed.file[row] = hash === noTerm ? -1 : hashes.values[hashes.placeOf(hash)]!;
    }
    for (const response of responses) {
      const place = answers.placeOf(response);
      answered.visit[answer] = visit;
      answered.answer[answer] = place;
      answered.file[answer++] = fileOf(answers.values[place]!.contentHash);
    }
  });
  const contents = files.map(({ contentHash }) => contentHash);
  const pageIds = rows.map(([pageId]) => pageId);
  return {
    visits,
    placements: new PlacementTable(
      placed,
      { shapes: shapes.values, addresses: addresses.values, alts: alts.values },
      visits,
      contents,
    ),
    responses: new AnswerTable(answered, answers.values, visits),
    curveOf: curvesOf(database, surveyId, pageIds, shapes.values, texts),
  };
}

function sum(numbers: readonly number[]): number {
  return numbers.reduce((all, number) => all + number, 0);
}

function emptyColumns<Name extends string>(
  length: number,
  names: readonly Name[],
): Record<Name, Int32Array> {
  const entries = names.map((name) => [name, new Int32Array(length)]);
  return Object.fromEntries(entries) as Record<Name, Int32Array>;
}

/** Terms of one kind: those that occur, numbered as they do, and read once. */
class Terms<Value> {
  readonly values: Value[] = [];
  readonly #texts: ReadonlyMap<number, string>;
  readonly #read: (text: string) => Value;
  readonly #places: Int32Array;

  constructor(texts: ReadonlyMap<number, string>, read: (text: string) => Value) {
    this.#texts = texts;
    this.#read = read;
    let most = 0;
    for (const term of texts.keys()) most = Math.max(most, term);
    this.#places = new Int32Array(most + 1).fill(-1);
  }

  /** The place of a term's value; −1 for none. */
  placeOf(term: number): number {
    if (term === noTerm) return -1;
    const known = this.#places[term];
    if (known !== undefined && known >= 0) return known;
    const place = this.values.push(this.#read(this.#texts.get(term) ?? '')) - 1;
    this.#places[term] = place;
    return place;
  }
}

/** Reads the slot curves of a survey when one of them is first asked for. */
function curvesOf(
  database: Database.Database,
  surveyId: number,
  pageIds: readonly number[],
  shapes: readonly PlacementShape[],
  texts: ReadonlyMap<number, string>,
): CurveOf {
  let kept: ReadonlyMap<number, string> | undefined;
  const readKept = allRows<[number, string]>(
    database,
    ['id', 'curves'],
    'SELECT id, curves FROM page WHERE survey_id = ?',
  );
  const pieces = new Terms(texts, (text) => JSON.parse(text) as CurvePiece[]);
  const pages = new Map<number, ReadonlyMap<string, number>>();
  const readPage = (page: number) => {
    kept ??= new Map(readKept(surveyId));
    const numbers = JSON.parse(kept.get(page) ?? '[]') as number[];
    const curves = new Map<string, number>();
    for (let at = 0; at < numbers.length; at += 2)
      curves.set(texts.get(numbers[at]!) ?? '', numbers[at + 1]!);
    return curves;
  };
  const elements: string[] = [];
  return (visit, shape) => {
    const page = pageIds[visit]!;
    const element = (elements[shape] ??= elementText(shapes[shape]!));
    let curves = pages.get(page);
    if (!curves) pages.set(page, (curves = readPage(page)));
    const term = curves.get(element);
    return term === undefined ? null : pieces.values[pieces.placeOf(term)]!;
  };
}
