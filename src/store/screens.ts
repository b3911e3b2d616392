import type { Database, Statement } from './database.js';
import type { PageScreen } from '../core/survey/page-screen.js';

/** A screen of a page, its picture left to be read. */
export interface KeptScreen extends Omit<PageScreen, 'picture'> {
  readonly page: string;
  readonly view: string;
  /** Reads the picture of its first screen; `null` where none was taken. */
  readonly picture: () => Uint8Array | null;
}

/** How the pages of surveys are laid out, and what their first screens look like. */
export class ScreenStore {
  readonly #database: Database;
  readonly #add: Statement;

  constructor(database: Database) {
    this.#database = database;
    this.#add = database.prepare('INSERT INTO screen VALUES (?, ?, ?, ?, ?, ?)');
  }

  /** @param page the number of the page's row */
  add(page: number, view: string, { width, height, boxes, picture }: PageScreen): void {
    const blob = picture && Buffer.from(picture);
    this.#add.run(page, view, width, height, JSON.stringify(boxes), blob);
  }

  /** The screens of some pages of a survey; none in surveys of older versions. */
  *ofSurvey(surveyId: number, isMeant: (page: string) => boolean): Generator<KeptScreen> {
    const pages = this.#database.prepare('SELECT id, url FROM page WHERE survey_id = ?');
    const screens = this.#database.prepare(
      'SELECT view, width, height, boxes FROM screen WHERE page_id = ?',
    );
    const picture = this.#database.prepare(
      'SELECT picture FROM screen WHERE page_id = ? AND view = ?',
    );
    for (const { id, url } of pages.all(surveyId) as { id: number; url: string }[]) {
      if (!isMeant(url)) continue;
      for (const row of screens.all(id) as ScreenRow[])
        yield {
          ...{ page: url, view: row.view, width: row.width, height: row.height },
          boxes: JSON.parse(row.boxes) as number[],
          picture: () => (picture.get(id, row.view) as { picture: Buffer | null }).picture,
        };
    }
  }
}

interface ScreenRow {
  readonly view: string;
  readonly width: number;
  readonly height: number;
  readonly boxes: string;
}
