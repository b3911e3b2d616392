import type { Database } from './database.js';
import type { Film, FilmFrame } from '../core/pixels/film.js';

type StoredFilm = Omit<Film, 'frames'> & {
  readonly moments: readonly Omit<FilmFrame, 'picture'>[];
};

/** Films of the pages of sessions, one extra load each. */
export class FilmStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  add(sessionId: number, { frames, ...film }: Film): void {
    const moments = frames.map(({ picture: _, ...moment }) => moment);
    const addFrame = this.#database.prepare('INSERT INTO film_frame VALUES (?, ?, ?)');
    this.#database.transaction(() => {
      this.#database
        .prepare('INSERT INTO film VALUES (?, ?)')
        .run(sessionId, JSON.stringify({ ...film, moments } satisfies StoredFilm));
      frames.forEach(({ picture }, position) =>
        addFrame.run(sessionId, position, Buffer.from(picture)),
      );
    });
  }

  /** The film of a session; `null` where none was made. */
  of(sessionId: number): Film | null {
    const row = this.#database
      .prepare('SELECT film FROM film WHERE session_id = ?')
      .get(sessionId) as { film: string } | undefined;
    if (!row) return null;
    const pictures = this.#database
      .prepare('SELECT picture FROM film_frame WHERE session_id = ? ORDER BY position')
      .all(sessionId) as { picture: Buffer }[];
    const { moments, ...film } = JSON.parse(row.film) as StoredFilm;
    const frames = moments.flatMap((moment, at): FilmFrame[] => {
      const picture = pictures[at]?.picture;
      return picture ? [{ ...moment, picture }] : [];
    });
    return { ...film, frames };
  }
}
