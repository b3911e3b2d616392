import type { Database } from './database.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { distinctUses } from '../core/survey/picture-use.js';
import type { PictureUse } from '../core/survey/picture-use.js';
import { record } from '../core/base/record.js';
import type { CurvePiece } from '../core/slots/slot-curve.js';
import {
  responseColumns,
  ResponseTable,
  placementColumns,
  PlacementTable,
} from '../core/survey/survey-tables.js';
import type {
  ResponseColumns,
  ResponseFacts,
  PlacementColumns,
  PlacementLists,
} from '../core/survey/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../core/survey/survey.js';
import { elementText } from './curves-document.js';
import { visitOrder } from './visit-order.js';
import type { TermStore } from './terms.js';
import {
  fromVisitDocument,
  noTerm,
  numbersPerPlacement,
  readAlt,
  readElement,
  readResponse,
  readShape,
  readUse,
} from './visit-document.js';

type VisitRow = [pageId: number, url: string, status: number | null, view: string, facts: string];

/** The tables of a survey. */
export type SurveyTables = Pick<
  SurveyFacts,
  'files' | 'visits' | 'placements' | 'responses' | 'uses'
>;

/** The tables of a survey, built from the documents of its visits. */
export function readVisits(
  database: Database,
  terms: TermStore,
  surveyId: number,
  files: readonly ImageFile[],
): SurveyTables {
  const texts = terms.texts(surveyId);
  const rows = database.rows<VisitRow>(
    ['page_id', 'url', 'status', 'view', 'facts'],
    `SELECT page_id, url, status, view, facts FROM visit
     JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY ${visitOrder}`,
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
  const answers = new Terms(texts, readResponse);
  const elements = new Terms(texts, readElement);
  const curves = new Terms(texts, (text) => JSON.parse(text) as CurvePiece[]);
  const swept = sweptElements(database, surveyId, texts);
  const placed = emptyColumns(
    sum(documents.map(({ placements }) => placements.length / numbersPerPlacement)),
    placementColumns,
  );
  const answered = emptyColumns(
    sum(documents.map(({ responses }) => responses.length)),
    responseColumns,
  );
  let row = 0;
  let answer = 0;
  documents.forEach(({ placements, elements: found, responses }, visit) => {
    const curvesOfPage = swept(rows[visit]![0]);
    for (let at = 0; at < placements.length; at += numbersPerPlacement, row++) {
      const hash = placements[at + 3]!;
      const shape = shapes.placeOf(placements[at]!);
      placed.visit[row] = visit;
      placed.shape[row] = shape;
      placed.url[row] = addresses.placeOf(placements[at + 1]!);
      placed.alt[row] = alts.placeOf(placements[at + 2]!);
      placed.file[row] = hash === noTerm ? -1 : hashes.values[hashes.placeOf(hash)]!;
      const curve = curvesOfPage.get(elementText(shapes.values[shape]!));
      placed.curve[row] = curve === undefined ? -1 : curves.placeOf(curve);
      placed.element[row] = elements.placeOf(found[at / numbersPerPlacement] ?? noTerm);
    }
    for (const response of responses) {
      const place = answers.placeOf(response);
      answered.visit[answer] = visit;
      answered.answer[answer] = place;
      answered.file[answer++] = fileOf(answers.values[place]!.contentHash);
    }
  });
  const lists = {
    shapes: shapes.values,
    addresses: addresses.values,
    alts: alts.values,
    curves: curves.values,
    elements: elements.values,
  };
  const named = new Terms(texts, readUse);
  const uses = distinctUses(
    documents.flatMap(({ uses: numbers }, visit) =>
      numbers.map((number) => ({
        ...named.values[named.placeOf(number)]!,
        page: visits[visit]!.page,
      })),
    ),
  );
  return tablesOf({ placed, answered, lists, answers: answers.values, visits, files, uses });
}

/** The sources of a survey's tables. */
export interface TableParts {
  readonly placed: PlacementColumns;
  readonly answered: ResponseColumns;
  readonly lists: PlacementLists;
  readonly answers: readonly ResponseFacts[];
  readonly visits: readonly SurveyedVisit[];
  readonly files: readonly ImageFile[];
  readonly uses: readonly PictureUse[];
}

export function tablesOf(parts: TableParts): SurveyTables {
  const { placed, answered, lists, answers, visits, files, uses } = parts;
  const contents = files.map(({ contentHash }) => contentHash);
  return {
    files,
    visits,
    placements: new PlacementTable(placed, lists, visits, contents),
    responses: new ResponseTable(answered, answers, visits),
    uses,
  };
}

function sum(numbers: readonly number[]): number {
  return numbers.reduce((all, number) => all + number, 0);
}

function emptyColumns<Name extends string>(
  length: number,
  names: readonly Name[],
): Record<Name, Int32Array> {
  return record(names, () => new Int32Array(length));
}

/** Terms of one kind: those that occur, numbered as they do, and read once. */
class Terms<Value> {
  readonly values: Value[] = [];
  readonly #texts: ReadonlyMap<number, string>;
  readonly #read: (text: string) => Value;
  readonly #places: Int32Array;
  /** Their numbers begin here: a workspace of many surveys numbers the terms of all of them. */
  readonly #least: number;

  constructor(texts: ReadonlyMap<number, string>, read: (text: string) => Value) {
    this.#texts = texts;
    this.#read = read;
    let [least, most] = [Infinity, 0];
    for (const term of texts.keys()) [least, most] = [Math.min(least, term), Math.max(most, term)];
    this.#least = texts.size === 0 ? 0 : least;
    this.#places = new Int32Array(most - this.#least + 1).fill(-1);
  }

  /** The index of a term's value; −1 for none. */
  placeOf(term: number): number {
    if (term === noTerm) return -1;
    const known = this.#places[term - this.#least];
    if (known !== undefined && known >= 0) return known;
    const place = this.values.push(this.#read(this.#texts.get(term) ?? '')) - 1;
    this.#places[term - this.#least] = place;
    return place;
  }
}

/** The swept elements of the pages of a survey: the numbers of the terms of their slot curves, by the element. */
function sweptElements(
  database: Database,
  surveyId: number,
  texts: ReadonlyMap<number, string>,
): (page: number) => ReadonlyMap<string, number> {
  const kept = new Map(
    database.rows<[number, string]>(
      ['id', 'curves'],
      'SELECT id, curves FROM page WHERE survey_id = ?',
    )(surveyId),
  );
  const pages = new Map<number, ReadonlyMap<string, number>>();
  return (page) => {
    const known = pages.get(page);
    if (known) return known;
    const numbers = JSON.parse(kept.get(page) ?? '[]') as number[];
    const curves = new Map<string, number>();
    for (let at = 0; at < numbers.length; at += 2)
      curves.set(texts.get(numbers[at]!) ?? '', numbers[at + 1]!);
    pages.set(page, curves);
    return curves;
  };
}
