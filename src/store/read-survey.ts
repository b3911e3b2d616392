import type { Database } from './database.js';
import { record } from '../core/base/record.js';
import { distinctUses } from '../core/survey/picture-use.js';
import type { CurvePiece } from '../core/slots/slot-curve.js';
import { responseColumns, placementColumns } from '../core/survey/survey-tables.js';
import type { SurveyedVisit } from '../core/survey/survey.js';
import { elementText } from './curves-document.js';
import type { SurveyPart } from './survey-part.js';
import type { TermStore } from './terms.js';
import {
  readVisitDocument,
  noTerm,
  numbersPerPlacement,
  readAlt,
  readElement,
  readPath,
  readResponse,
  readShape,
  readUse,
} from './visit-document.js';
import { visitOrder } from './visit-order.js';

type VisitRow = [pageId: number, url: string, status: number | null, view: string, facts: string];

/** The visits of some pages as they are kept. */
interface KeptVisits {
  readonly rows: readonly VisitRow[];
  readonly documents: readonly ReturnType<typeof readVisitDocument>[];
  /** The swept elements of each page: numbers of terms, of the element and of its slot curve. */
  readonly curves: ReadonlyMap<number, readonly number[]>;
}

/** Placements and answers of a part, unless a page alone has more. */
export const usualPart = 2 ** 18;

/** The most pages that are read at once. */
const pagesAtOnce = 100;

/**
 * The tables of a survey from the documents of its visits, in parts of whole pages.
 *
 * @param places of the files of the survey, by their content hashes
 * @param most placements and answers of a part
 */
export function* readVisits(
  database: Database,
  terms: TermStore,
  surveyId: number,
  places: ReadonlyMap<string, number>,
  most = usualPart,
): Generator<SurveyPart> {
  let kept: KeptVisits[] = [];
  let size = 0;
  let isFirst = true;
  // Parts that are to be small are made of fewer pages.
  const atOnce = most < usualPart ? 1 : pagesAtOnce;
  for (const some of keptVisits(database, surveyId, atOnce)) {
    const more = sizeOf(some);
    if (size > 0 && size + more > most) {
      yield partOf(joined(kept), terms, places);
      [kept, size, isFirst] = [[], 0, false];
    }
    kept.push(some);
    size += more;
  }
  const last = partOf(joined(kept), terms, places);
  // Where there is no other part, nothing is to be known again.
  yield isFirst ? { ...last, terms: noTerms } : last;
}

const noTerms: SurveyPart['terms'] = {
  ...{ shapes: [], addresses: [], alts: [], curves: [], elements: [], paths: [], answers: [] },
};

/** The visits of a survey, a few pages at a time. */
function* keptVisits(database: Database, surveyId: number, atOnce: number): Generator<KeptVisits> {
  const { each, element } = database.dialect;
  const some = `SELECT ${element(0, 'integer')} FROM ${each('?')}`;
  const ids = database.rows<[number]>(
    ['id'],
    'SELECT id FROM page WHERE survey_id = ? ORDER BY depth, url',
  )(surveyId);
  const visits = database.rows<VisitRow>(
    ['page_id', 'url', 'status', 'view', 'facts'],
    `SELECT page_id, url, status, view, facts FROM visit
     JOIN page ON page.id = page_id WHERE page_id IN (${some}) ORDER BY ${visitOrder}`,
  );
  const curves = database.rows<[number, string]>(
    ['id', 'curves'],
    `SELECT id, curves FROM page WHERE id IN (${some})`,
  );
  for (let from = 0; from < ids.length; from += atOnce) {
    const list = JSON.stringify(ids.slice(from, from + atOnce));
    const rows = visits(list);
    yield {
      rows,
      documents: rows.map(([, , , , facts]) => readVisitDocument(facts)),
      curves: new Map(curves(list).map(([id, text]) => [id, JSON.parse(text) as number[]])),
    };
  }
}

function sizeOf({ documents }: KeptVisits): number {
  return documents.reduce(
    (sum, { placements, responses }) =>
      sum + placements.length / numbersPerPlacement + responses.length,
    0,
  );
}

function joined(kept: readonly KeptVisits[]): KeptVisits {
  return {
    rows: kept.flatMap(({ rows }) => rows),
    documents: kept.flatMap(({ documents }) => documents),
    curves: new Map(kept.flatMap(({ curves }) => [...curves])),
  };
}

function partOf(
  { rows, documents, curves: curvesOf }: KeptVisits,
  terms: TermStore,
  places: ReadonlyMap<string, number>,
): SurveyPart {
  const numbers = new Set<number>();
  const note = (list: readonly number[]) => {
    for (const number of list) numbers.add(number);
  };
  for (const { placements, elements, paths, responses, uses } of documents)
    for (const list of [placements, elements, paths, responses, uses]) note(list);
  for (const list of curvesOf.values()) note(list);
  const texts = terms.textsOf([...numbers]);
  const visits = rows.map(([, page, status, view], at): SurveyedVisit => {
    const { placements, responses } = documents[at]!;
    const found = placements.length + responses.length > 0;
    return { page, view, measured: found || (status !== null && status < 400) };
  });
  const fileOf = (contentHash: string | null) => places.get(contentHash ?? '') ?? -1;
  const shapes = new Terms(texts, readShape);
  const addresses = new Terms(texts, (text) => text);
  const alts = new Terms(texts, readAlt);
  const hashes = new Terms(texts, fileOf);
  const answers = new Terms(texts, readResponse);
  const elements = new Terms(texts, readElement);
  const paths = new Terms(texts, readPath);
  const curves = new Terms(texts, (text) => JSON.parse(text) as CurvePiece[]);
  const named = new Terms(texts, readUse);
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
  let swept: ReadonlyMap<string, number> = new Map();
  documents.forEach(({ placements, elements: found, paths: ways, responses }, visit) => {
    const page = rows[visit]![0];
    if (rows[visit - 1]?.[0] !== page) swept = sweptElements(curvesOf.get(page) ?? [], texts);
    for (let at = 0; at < placements.length; at += numbersPerPlacement, row++) {
      const hash = placements[at + 3]!;
      const shape = shapes.placeOf(placements[at]!);
      placed.visit[row] = visit;
      placed.shape[row] = shape;
      placed.url[row] = addresses.placeOf(placements[at + 1]!);
      placed.alt[row] = alts.placeOf(placements[at + 2]!);
      placed.file[row] = hash === noTerm ? -1 : hashes.values[hashes.placeOf(hash)]!;
      const curve = swept.get(elementText(shapes.values[shape]!));
      placed.curve[row] = curve === undefined ? -1 : curves.placeOf(curve);
      placed.element[row] = elements.placeOf(found[at / numbersPerPlacement] ?? noTerm);
      placed.path[row] = paths.placeOf(ways[at / numbersPerPlacement] ?? noTerm);
    }
    for (const response of responses) {
      const place = answers.placeOf(response);
      answered.visit[answer] = visit;
      answered.answer[answer] = place;
      answered.file[answer++] = fileOf(answers.values[place]!.contentHash);
    }
  });
  const lists = { shapes, addresses, alts, curves, elements, paths, answers };
  const names = Object.keys(lists) as (keyof typeof lists)[];
  const { answers: ofAnswers, ...ofPlacements } = lists;
  return {
    ...{ placed, answered, visits, answers: ofAnswers.values },
    lists: {
      shapes: ofPlacements.shapes.values,
      addresses: ofPlacements.addresses.values,
      alts: ofPlacements.alts.values,
      curves: ofPlacements.curves.values,
      elements: ofPlacements.elements.values,
      paths: ofPlacements.paths.values,
    },
    terms: record(names, (name) => lists[name].numbers),
    uses: distinctUses(
      documents.flatMap(({ uses }, visit) =>
        uses.map((number) => ({
          ...named.values[named.placeOf(number)]!,
          page: visits[visit]!.page,
        })),
      ),
    ),
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
  /** The numbers that the terms have in the survey. */
  readonly numbers: number[] = [];
  readonly #texts: ReadonlyMap<number, string>;
  readonly #read: (text: string) => Value;
  readonly #places = new Map<number, number>();

  constructor(texts: ReadonlyMap<number, string>, read: (text: string) => Value) {
    this.#texts = texts;
    this.#read = read;
  }

  /** The index of a term's value; −1 for none. */
  placeOf(term: number): number {
    if (term === noTerm) return -1;
    const known = this.#places.get(term);
    if (known !== undefined) return known;
    const place = this.values.push(this.#read(this.#texts.get(term) ?? '')) - 1;
    this.numbers.push(term);
    this.#places.set(term, place);
    return place;
  }
}

/** The swept elements of a page: the numbers of the terms of their slot curves, by the element. */
function sweptElements(
  numbers: readonly number[],
  texts: ReadonlyMap<number, string>,
): ReadonlyMap<string, number> {
  const curves = new Map<string, number>();
  for (let at = 0; at < numbers.length; at += 2)
    curves.set(texts.get(numbers[at]!) ?? '', numbers[at + 1]!);
  return curves;
}
