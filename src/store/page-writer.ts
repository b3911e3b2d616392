import type { DocumentSketch } from '../core/survey/document-sketch.js';
import type { SlotCurve } from '../core/slots/placement.js';
import type { SurveyedPage } from '../core/survey/survey.js';
import type { ColumnType, Database, Statement } from './database.js';
import { pageDocument, renumberedList, visitTexts } from './page-document.js';
import { manyRows } from './many-rows.js';
import type { AddRows } from './many-rows.js';
import type { ScreenStore } from './screens.js';
import type { TermStore } from './terms.js';
import type { VisitFacts } from './visit-document.js';
import { wellFormedJson } from './well-formed-json.js';

/** A page with everything that its visits found. */
export interface PageRecord {
  readonly page: SurveyedPage;
  readonly visits: readonly VisitFacts[];
  readonly curves: readonly Omit<SlotCurve, 'page'>[];
  /** Sketch of the document, by which pages of one template are found. */
  readonly shape: DocumentSketch;
  /** Digest of what the document shows; empty if there is none. */
  readonly document: string;
}

/** The columns of a page that are written with it, but for the survey that it is of. */
const pageColumns: Readonly<Record<string, ColumnType>> = {
  url: 'text',
  final_url: 'text',
  status: 'integer',
  depth: 'integer',
  visits: 'double precision',
  page_group: 'text',
  error: 'text',
  bytes_by_type: 'text',
  curves: 'text',
  shape: 'text',
  document: 'text',
};

interface PageNumber {
  readonly id: number;
  readonly url: string;
}

/** What is known by its content alone. */
interface Content {
  readonly contentHash: string;
}

/** Each content once. */
function contentsOf(of: readonly { readonly contentHash: string | null }[]): Content[] {
  const hashes = new Set(of.flatMap(({ contentHash }) => contentHash ?? []));
  return [...hashes].map((contentHash) => ({ contentHash }));
}

/** Writes pages with all that their visits found. */
export class PageWriter {
  readonly #terms: TermStore;
  readonly #screens: ScreenStore;
  // Prepared once: a crawl runs each of them thousands of times.
  readonly #addPages: Statement;
  readonly #addVisit: Statement;
  readonly #addFiles: AddRows<Content>;
  readonly #addTexts: AddRows<Content>;

  constructor(database: Database, terms: TermStore, screens: ScreenStore) {
    this.#terms = terms;
    this.#screens = screens;
    const { each, element } = database.dialect;
    const values = Object.values(pageColumns).map((type, at) => element(at, type));
    this.#addPages = database.prepare(
      `INSERT INTO page (survey_id, ${Object.keys(pageColumns).join(', ')})
       SELECT ?, ${values.join(', ')} FROM ${each('?')} WHERE true ORDER BY key RETURNING id, url`,
    );
    this.#addVisit = database.prepare('INSERT INTO visit VALUES (?, ?, ?, ?, ?)');
    this.#addFiles = manyRows(database, 'survey_file', { contentHash: 'text' });
    this.#addTexts = manyRows(database, 'survey_text', { contentHash: 'text' });
  }

  /** Writes pages, each of another address, as a part of a transaction. */
  add(surveyId: number, records: readonly PageRecord[]): void {
    const texts = new Map<string, number>();
    const provisional = (text: string) => {
      const number = texts.get(text) ?? texts.size + 1;
      texts.set(text, number);
      return number;
    };
    const documents = records.map(({ curves, visits }) =>
      pageDocument(curves, visits, provisional),
    );
    const numbers = this.#terms.numbersOf(surveyId, [...texts.keys()]);
    const toNumber = (number: number) => numbers[number - 1]!;
    const rows = records.map(({ page, shape, document }, at) => [
      page.url,
      page.finalUrl,
      page.status,
      page.depth,
      page.visits,
      page.group,
      page.error,
      JSON.stringify(page.bytesByType),
      JSON.stringify(renumberedList(documents[at]!.curves, toNumber)),
      JSON.stringify(shape),
      document,
    ]);
    const added = this.#addPages.all(surveyId, wellFormedJson(rows)) as PageNumber[];
    const ids = new Map(added.map(({ id, url }) => [url, id]));
    records.forEach(({ page, visits }, at) => {
      const id = ids.get(page.url)!;
      visits.forEach(({ view, screen }, visit) => {
        this.#addVisit.run(id, view, ...visitTexts(documents[at]!.visits[visit]!, toNumber));
        if (screen) this.#screens.add(id, view, screen);
      });
    });
    this.#addContents(
      surveyId,
      records.flatMap(({ visits }) => visits),
    );
  }

  /** Names what visits were sent as the contents of a survey. */
  #addContents(surveyId: number, visits: readonly VisitFacts[]): void {
    const files = visits.flatMap(({ responses }) => responses);
    // A vector image is a text as well.
    const vectors = files.filter(({ declaredType }) => /svg/.test(declaredType));
    const resources = visits.flatMap((visit) => visit.resources);
    this.#addFiles(surveyId, contentsOf(files));
    this.#addTexts(surveyId, contentsOf([...vectors, ...resources]));
  }
}
