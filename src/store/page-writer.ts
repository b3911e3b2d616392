import type { DocumentSketch } from '../core/survey/document-sketch.js';
import type { SlotCurve } from '../core/slots/placement.js';
import type { SurveyedPage } from '../core/survey/survey.js';
import { curvesText } from './curves-document.js';
import type { Database, Statement } from './database.js';
import { toLoadDocument } from './load-document.js';
import { manyRows } from './many-rows.js';
import type { AddRows } from './many-rows.js';
import type { ScreenStore } from './screens.js';
import type { TermStore } from './terms.js';
import { toResourcesDocument, toVisitDocument } from './visit-document.js';
import type { VisitFacts } from './visit-document.js';

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

/** What is known by its content alone. */
interface Content {
  readonly contentHash: string;
}

/** Each content once. */
function contentsOf(of: readonly { readonly contentHash: string | null }[]): Content[] {
  const hashes = new Set(of.flatMap(({ contentHash }) => contentHash ?? []));
  return [...hashes].map((contentHash) => ({ contentHash }));
}

/** The documents of a page and its visits, in which terms are numbers. */
function documentsOf({ curves, visits }: PageRecord, term: (text: string) => number) {
  return {
    curves: curvesText(curves, term),
    visits: visits.map((visit) => [
      toVisitDocument(visit, term),
      toResourcesDocument(visit, term),
      toLoadDocument(visit.load, term),
    ]),
  };
}

/** Writes pages with all that their visits found. */
export class PageWriter {
  readonly #terms: TermStore;
  readonly #screens: ScreenStore;
  // Prepared once: a crawl runs each of them thousands of times.
  readonly #addPage: Statement;
  readonly #addVisit: Statement;
  readonly #addFiles: AddRows<Content>;
  readonly #addTexts: AddRows<Content>;

  constructor(database: Database, terms: TermStore, screens: ScreenStore) {
    this.#terms = terms;
    this.#screens = screens;
    this.#addPage = database.prepare(
      `INSERT INTO page (survey_id, url, final_url, status, depth, visits, page_group, error,
         bytes_by_type, curves, shape, document)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
    );
    this.#addVisit = database.prepare('INSERT INTO visit VALUES (?, ?, ?, ?, ?)');
    this.#addFiles = manyRows(database, 'survey_file', { contentHash: 'text' });
    this.#addTexts = manyRows(database, 'survey_text', { contentHash: 'text' });
  }

  /** Writes one page, as a part of a transaction. */
  add(surveyId: number, record: PageRecord): void {
    const { page, visits, shape, document } = record;
    this.#terms.learn(surveyId, (term) => documentsOf(record, term));
    const documents = documentsOf(record, (text) => this.#terms.numberOf(surveyId, text));
    const { id } = this.#addPage.get(
      surveyId,
      page.url,
      page.finalUrl,
      page.status,
      page.depth,
      page.visits,
      page.group,
      page.error,
      JSON.stringify(page.bytesByType),
      documents.curves,
      JSON.stringify(shape),
      document,
    ) as { id: number };
    visits.forEach(({ view, screen }, at) => {
      this.#addVisit.run(id, view, ...documents.visits[at]!);
      if (screen) this.#screens.add(id, view, screen);
    });
    this.#addContents(surveyId, visits);
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
