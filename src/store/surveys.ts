import type Database from 'libsql';
import { NotFoundError } from '../core/errors.js';
import type { ImageResponse } from '../core/image-file.js';
import type { Placement, PlacementKind, SlotCurve } from '../core/placement.js';
import type { ObjectFit } from '../core/rendered-size.js';
import type { BytesByType } from '../core/request.js';
import type { SkippedAddress, SurveyFacts, SurveyHead, SurveyedPage } from '../core/survey.js';
import type { View } from '../core/view.js';
import { toImageFile } from './images.js';

interface SurveyRow {
  readonly id: number;
  readonly label: string;
  readonly started_at: string;
  readonly finished_at: string | null;
  readonly starts: string;
  readonly views: string;
}

interface PageRow {
  readonly url: string;
  readonly final_url: string;
  readonly status: number | null;
  readonly depth: number;
  readonly page_group: string | null;
  readonly error: string | null;
  readonly bytes_by_type: string;
}

interface PlacementRow {
  readonly page: string;
  readonly view: string;
  readonly kind: string;
  readonly selector: string;
  readonly url: string;
  readonly content_hash: string | null;
  readonly slot_width: number;
  readonly slot_height: number;
  readonly fit: string;
  readonly above_fold: number;
  readonly shown: number;
  readonly loading: string;
  readonly fetched: string | null;
  /** The rest of a placement, as JSON. */
  readonly details: string;
}

type Details = Pick<Placement, 'drawn' | 'naturalDensity' | 'markup'>;

interface CurveRow {
  readonly page: string;
  readonly kind: string;
  readonly selector: string;
  readonly pieces: string;
}

interface ResponseRow {
  readonly page: string;
  readonly view: string;
  readonly url: string;
  readonly content_hash: string;
  readonly declared_type: string;
  readonly transfer_bytes: number;
  readonly third_party: number;
}

/** A page with everything that its visits found. */
export interface PageRecord {
  readonly page: SurveyedPage;
  readonly placements: readonly Omit<Placement, 'page'>[];
  readonly curves: readonly Omit<SlotCurve, 'page'>[];
  readonly responses: readonly Omit<ImageResponse, 'page'>[];
}

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
  ): SurveyHead {
    return this.#database.transaction(() => {
      const { lastInsertRowid } = this.#database
        .prepare('INSERT INTO survey (label, started_at, starts, views) VALUES (?, ?, ?, ?)')
        .run(label ?? `new ${startedAt}`, startedAt, JSON.stringify(starts), JSON.stringify(views));
      const id = Number(lastInsertRowid);
      if (!label)
        this.#database.prepare('UPDATE survey SET label = ? WHERE id = ?').run(`survey-${id}`, id);
      return this.#head(id);
    })();
  }

  /** Keeps one page, whole or not at all. */
  addPage(surveyId: number, { page, placements, curves, responses }: PageRecord): void {
    this.#database.transaction(() => {
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

  addSkipped(surveyId: number, skipped: readonly SkippedAddress[]): void {
    const add = this.#database.prepare('INSERT INTO skipped VALUES (?, ?, ?)');
    this.#database.transaction(() => {
      for (const { url, reason } of skipped) add.run(surveyId, url, reason);
    })();
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
    if (row) return this.#head(row.id);
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
    return rows.map((row) => ({
      url: row.url,
      finalUrl: row.final_url,
      status: row.status,
      depth: row.depth,
      group: row.page_group,
      error: row.error,
      bytesByType: JSON.parse(row.bytes_by_type) as BytesByType,
    }));
  }

  skipped(surveyId: number): SkippedAddress[] {
    const rows = this.#database
      .prepare('SELECT url, reason FROM skipped WHERE survey_id = ?')
      .all(surveyId) as SkippedAddress[];
    return rows.map(({ url, reason }) => ({ url, reason }));
  }

  #head(id: number): SurveyHead {
    const row = this.#database.prepare('SELECT * FROM survey WHERE id = ?').get(id) as SurveyRow;
    return {
      id: row.id,
      label: row.label,
      startedAt: row.started_at,
      finishedAt: row.finished_at,
      starts: JSON.parse(row.starts) as string[],
      views: JSON.parse(row.views) as View[],
    };
  }
}

function toPlacement(row: PlacementRow): Placement {
  return {
    page: row.page,
    view: row.view,
    kind: row.kind as PlacementKind,
    selector: row.selector,
    url: row.url,
    contentHash: row.content_hash,
    slot: { width: row.slot_width, height: row.slot_height },
    fit: row.fit as ObjectFit,
    aboveFold: row.above_fold === 1,
    shown: row.shown === 1,
    loading: row.loading as Placement['loading'],
    fetched: row.fetched as Placement['fetched'],
    ...(JSON.parse(row.details) as Details),
  };
}

function toCurve(row: CurveRow): SlotCurve {
  return {
    page: row.page,
    kind: row.kind as PlacementKind,
    selector: row.selector,
    pieces: JSON.parse(row.pieces) as SlotCurve['pieces'],
  };
}

function toResponse(row: ResponseRow): ImageResponse {
  return {
    page: row.page,
    view: row.view,
    url: row.url,
    contentHash: row.content_hash,
    declaredType: row.declared_type,
    transferBytes: row.transfer_bytes,
    thirdParty: row.third_party === 1,
  };
}
