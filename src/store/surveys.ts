import type Database from 'libsql';
import { NotFoundError } from '../core/errors.js';
import type { ImageResponse } from '../core/image-file.js';
import type { Placement, SlotCurve } from '../core/placement.js';
import type {
  DuePage,
  SkippedAddress,
  SurveyFacts,
  SurveyHead,
  SurveyPlan,
  SurveyedPage,
} from '../core/survey.js';
import type { View } from '../core/view.js';
import { toImageFile } from './images.js';
import { toCurve, toHead, toPage, toPlacement, toResponse } from './survey-rows.js';
import type {
  CurveRow,
  Details,
  PageRow,
  PlacementRow,
  ResponseRow,
  SurveyRow,
} from './survey-rows.js';

/** A page with everything that its visits found. */
export interface PageRecord {
  readonly page: SurveyedPage;
  readonly placements: readonly Omit<Placement, 'page'>[];
  readonly curves: readonly Omit<SlotCurve, 'page'>[];
  readonly responses: readonly Omit<ImageResponse, 'page'>[];
}

/** What a crawl comes across besides the page that it visits. */
export interface Found {
  readonly due: readonly DuePage[];
  readonly skipped: readonly SkippedAddress[];
}

const nothingFound: Found = { due: [], skipped: [] };

/** What a survey found, without the encodes that are made from it. */
export type SurveyedFacts = Omit<SurveyFacts, 'encoded'>;

/** Surveys, and what their pages hold. */
export class SurveyStore {
  readonly #database: Database.Database;

  constructor(database: Database.Database) {
    this.#database = database;
  }

  /**
   * Begins a survey.
   *
   * @param label names it, and is found before an older one of that name; left out, `survey-` and a number
   */
  begin(
    label: string | undefined,
    startedAt: string,
    starts: readonly string[],
    views: readonly View[],
    plan: SurveyPlan,
  ): SurveyHead {
    return this.#database.transaction(() => {
      const { lastInsertRowid } = this.#database
        .prepare(
          'INSERT INTO survey (label, started_at, starts, views, plan) VALUES (?, ?, ?, ?, ?)',
        )
        .run(
          label ?? `new ${startedAt}`,
          startedAt,
          JSON.stringify(starts),
          JSON.stringify(views),
          JSON.stringify(plan),
        );
      const id = Number(lastInsertRowid);
      if (!label)
        this.#database.prepare('UPDATE survey SET label = ? WHERE id = ?').run(`survey-${id}`, id);
      return this.get(id);
    })();
  }

  /** Keeps one page with all that was found on it, whole or not at all. */
  addPage(
    surveyId: number,
    { page, placements, curves, responses }: PageRecord,
    found: Found = nothingFound,
  ): void {
    this.#database.transaction(() => {
      this.addFound(surveyId, found);
      const { lastInsertRowid } = this.#database
        .prepare(
          `INSERT INTO page
             (survey_id, url, final_url, status, depth, page_group, error, bytes_by_type)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
        )
        .run(
          surveyId,
          page.url,
          page.finalUrl,
          page.status,
          page.depth,
          page.group,
          page.error,
          JSON.stringify(page.bytesByType),
        );
      const pageId = Number(lastInsertRowid);
      const addPlacement = this.#database.prepare(
        'INSERT INTO placement VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      );
      for (const { view, kind, selector, url, contentHash, slot, fit, ...state } of placements)
        addPlacement.run(
          pageId,
          view,
          kind,
          selector,
          url,
          contentHash,
          slot.width,
          slot.height,
          fit,
          Number(state.aboveFold),
          Number(state.shown),
          state.loading,
          state.fetched,
          JSON.stringify({
            drawn: state.drawn,
            naturalDensity: state.naturalDensity,
            markup: state.markup,
          } satisfies Details),
        );
      const addCurve = this.#database.prepare('INSERT INTO slot_curve VALUES (?, ?, ?, ?)');
      for (const { kind, selector, pieces } of curves)
        addCurve.run(pageId, kind, selector, JSON.stringify(pieces));
      const addResponse = this.#database.prepare(
        'INSERT INTO image_response VALUES (?, ?, ?, ?, ?, ?, ?)',
      );
      for (const response of responses)
        addResponse.run(
          pageId,
          response.view,
          response.url,
          response.contentHash,
          response.declaredType,
          response.transferBytes,
          Number(response.thirdParty),
        );
    })();
  }

  /** Keeps what was found besides a page: pages that are due, and addresses that are passed over. */
  addFound(surveyId: number, { due, skipped }: Found): void {
    const addDue = this.#database.prepare('INSERT OR IGNORE INTO due VALUES (?, ?, ?)');
    const addSkipped = this.#database.prepare('INSERT INTO skipped VALUES (?, ?, ?)');
    for (const { url, depth } of due) addDue.run(surveyId, url, depth);
    for (const { url, reason } of skipped) addSkipped.run(surveyId, url, reason);
  }

  /** What a survey that was broken off had still to do. */
  leftover(surveyId: number): {
    known: string[];
    due: DuePage[];
    visited: number;
  } {
    const texts = (sql: string) =>
      (this.#database.prepare(sql).all(surveyId) as { url: string }[]).map(({ url }) => url);
    const settled = new Set([
      ...texts('SELECT url FROM page WHERE survey_id = ?'),
      ...texts('SELECT url FROM skipped WHERE survey_id = ?'),
    ]);
    const due = this.#database
      .prepare('SELECT url, depth FROM due WHERE survey_id = ? ORDER BY depth, rowid')
      .all(surveyId) as DuePage[];
    const finals = texts('SELECT final_url AS url FROM page WHERE survey_id = ?');
    return {
      known: [...settled, ...finals, ...due.map(({ url }) => url)],
      due: due.filter(({ url }) => !settled.has(url)).map(({ url, depth }) => ({ url, depth })),
      visited: finals.length,
    };
  }

  /** How a survey was to be made. */
  plan(surveyId: number): SurveyPlan {
    const { plan } = this.#database
      .prepare('SELECT plan FROM survey WHERE id = ?')
      .get(surveyId) as SurveyRow;
    return JSON.parse(plan) as SurveyPlan;
  }

  finish(surveyId: number, finishedAt: string): void {
    this.#database
      .prepare('UPDATE survey SET finished_at = ? WHERE id = ?')
      .run(finishedAt, surveyId);
  }

  /**
   * The survey with this label, or the newest.
   *
   * @throws NotFoundError when there is none.
   */
  find(label?: string): SurveyHead {
    const row = (
      label === undefined
        ? this.#database.prepare('SELECT id FROM survey ORDER BY id DESC LIMIT 1').get()
        : this.#database
            .prepare('SELECT id FROM survey WHERE label = ? ORDER BY id DESC LIMIT 1')
            .get(label)
    ) as { id: number } | undefined;
    if (row) return this.get(row.id);
    const labels = this.labels();
    throw new NotFoundError(label ? `there is no survey ${label}` : 'there is no survey yet', {
      hint: labels.length > 0 ? `there are: ${labels.join(', ')}` : 'run zealous-lynx survey first',
    });
  }

  labels(): string[] {
    const rows = this.#database
      .prepare('SELECT label FROM survey GROUP BY label ORDER BY max(id)')
      .all();
    return (rows as { label: string }[]).map(({ label }) => label);
  }

  /** Everything that a survey found. */
  read(head: SurveyHead): SurveyedFacts {
    const all = <Row>(sql: string) => this.#database.prepare(sql).all(head.id) as Row[];
    return {
      head,
      pages: this.pages(head.id),
      files: all<Parameters<typeof toImageFile>[0]>(
        `SELECT * FROM image_file WHERE content_hash IN (
           SELECT content_hash FROM image_response JOIN page ON page.id = page_id
           WHERE survey_id = ?) ORDER BY content_hash`,
      ).map(toImageFile),
      responses: all<ResponseRow>(
        `SELECT page.url AS page, image_response.* FROM image_response
         JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY image_response.rowid`,
      ).map(toResponse),
      placements: all<PlacementRow>(
        `SELECT page.url AS page, placement.* FROM placement
         JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY placement.rowid`,
      ).map(toPlacement),
      curves: all<CurveRow>(
        `SELECT page.url AS page, slot_curve.* FROM slot_curve
         JOIN page ON page.id = page_id WHERE survey_id = ? ORDER BY page_id`,
      ).map(toCurve),
    };
  }

  pages(surveyId: number): SurveyedPage[] {
    const rows = this.#database
      .prepare('SELECT * FROM page WHERE survey_id = ? ORDER BY id')
      .all(surveyId) as PageRow[];
    return rows.map(toPage);
  }

  skipped(surveyId: number): SkippedAddress[] {
    const rows = this.#database
      .prepare('SELECT url, reason FROM skipped WHERE survey_id = ?')
      .all(surveyId) as SkippedAddress[];
    return rows.map(({ url, reason }) => ({ url, reason }));
  }

  /** The survey with this number. */
  get(id: number): SurveyHead {
    const row = this.#database.prepare('SELECT * FROM survey WHERE id = ?').get(id) as SurveyRow;
    return toHead(row);
  }
}
