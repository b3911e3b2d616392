import type { Database } from './database.js';
import { NotFoundError } from '../core/base/errors.js';
import type { SurveySummary, SurveyHead, SurveyPlan } from '../core/survey/survey.js';
import type { View } from '../core/visitors/view.js';
import { toHead } from './rows.js';
import type { SurveyRow } from './rows.js';

/** What a survey found, in tables that name it; all else hangs on these. */
const foundTables = [
  ...['page', 'due', 'skipped', 'term', 'sealed', 'summed', 'survey_file', 'survey_text'],
];

/** Surveys by their labels; what their pages hold is in the page store. */
export class SurveyStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  /**
   * Begins a survey.
   *
   * @param label names it, and is found before an older one of that name; left out, `survey-` and a number
   * @param more what is stored with it, whole or not at all
   */
  begin(
    label: string | undefined,
    startedAt: string,
    starts: readonly string[],
    views: readonly View[],
    plan: SurveyPlan,
    more: (id: number) => void = () => {},
  ): SurveyHead {
    return this.#database.transaction(() => {
      const { id } = this.#database
        .prepare(
          'INSERT INTO survey (label, started_at, starts, views, plan) VALUES (?, ?, ?, ?, ?) RETURNING id',
        )
        .get(
          label ?? `new ${startedAt}`,
          startedAt,
          JSON.stringify(starts),
          JSON.stringify(views),
          JSON.stringify(plan),
        ) as { id: number };
      if (!label) this.rename(id, `survey-${id}`);
      more(id);
      return this.get(id);
    });
  }

  /** The settings of a survey. */
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

  rename(surveyId: number, label: string): void {
    this.#database.prepare('UPDATE survey SET label = ? WHERE id = ?').run(label, surveyId);
  }

  /**
   * Takes a survey away, with everything that no other one needs.
   *
   * @returns content hashes of the bodies that nobody names any more
   */
  delete(surveyId: number): string[] {
    return this.#database.transaction(() => {
      this.#database.prepare('DELETE FROM survey WHERE id = ?').run(surveyId);
      return this.#deleteOrphans();
    });
  }

  /**
   * Takes away what a survey found, and leaves the survey and its figures.
   *
   * @returns content hashes of the bodies that nobody names any more
   */
  thin(surveyId: number, thinnedAt: string): string[] {
    return this.#database.transaction(() => {
      for (const table of foundTables)
        this.#database.prepare(`DELETE FROM ${table} WHERE survey_id = ?`).run(surveyId);
      this.#database
        .prepare('UPDATE survey SET thinned_at = ? WHERE id = ?')
        .run(thinnedAt, surveyId);
      return this.#deleteOrphans();
    });
  }

  /** Content hashes of the bodies that nobody would name any more if these surveys were thinned out; changes nothing. */
  namedByTheseAlone(surveyIds: readonly number[]): string[] {
    return this.#database.preview(() => {
      for (const table of foundTables)
        for (const id of surveyIds)
          this.#database.prepare(`DELETE FROM ${table} WHERE survey_id = ?`).run(id);
      return this.#deleteOrphans();
    });
  }

  /** Takes away what no survey names any more. */
  #deleteOrphans(): string[] {
    const orphans = 'content_hash NOT IN (SELECT content_hash FROM survey_file)';
    const lostTexts = 'content_hash NOT IN (SELECT content_hash FROM survey_text)';
    const rows = this.#database
      .prepare(
        `SELECT content_hash AS hash FROM image_file WHERE ${orphans}
         UNION SELECT content_hash FROM text_file WHERE ${lostTexts} AND ${orphans}
         UNION SELECT result_hash FROM encoded WHERE ${orphans} AND result_hash NOT IN
           (SELECT result_hash FROM encoded WHERE NOT (${orphans}) AND result_hash IS NOT NULL)`,
      )
      .all() as { hash: string }[];
    this.#database.exec(
      `DELETE FROM encoded WHERE ${orphans}; DELETE FROM fingerprint WHERE ${orphans};
       DELETE FROM image_file WHERE ${orphans}; DELETE FROM text_file WHERE ${lostTexts};`,
    );
    const kept = this.#database.prepare('SELECT 1 FROM image_file WHERE content_hash = ?');
    return rows.map(({ hash }) => hash).filter((hash) => !kept.get(hash));
  }

  /** All surveys, the oldest first. */
  list(): SurveySummary[] {
    const rows = this.#database
      .prepare(
        `SELECT survey.*,
           (SELECT count(*) FROM page WHERE survey_id = survey.id) AS pages,
           (SELECT count(*) FROM skipped WHERE survey_id = survey.id) AS skipped,
           count(bytes) AS files, coalesce(sum(bytes), 0) AS bytes
         FROM survey LEFT JOIN survey_file ON survey_id = id LEFT JOIN image_file USING (content_hash)
         GROUP BY survey.id ORDER BY survey.id`,
      )
      .all() as (SurveyRow & Record<'pages' | 'skipped' | 'files' | 'bytes', number>)[];
    return rows.map((row) => ({
      ...toHead(row),
      pages: row.pages,
      skipped: row.skipped,
      files: row.files,
      bytes: row.bytes,
      thinnedAt: row.thinned_at,
    }));
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

  /** The survey with this number. */
  get(id: number): SurveyHead {
    const row = this.#database.prepare('SELECT * FROM survey WHERE id = ?').get(id) as SurveyRow;
    return toHead(row);
  }
}
