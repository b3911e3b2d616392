/** Where placements stand on their pages and what these look like, films of loads, and what trials came to: for reports. */
export const toVersion9 = `
  CREATE TABLE screen (
    page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    view TEXT NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    boxes TEXT NOT NULL,
    picture BLOB,
    PRIMARY KEY (page_id, view)
  ) WITHOUT ROWID;
  CREATE TABLE film (
    session_id INTEGER PRIMARY KEY REFERENCES session(id) ON DELETE CASCADE,
    film TEXT NOT NULL
  );
  CREATE TABLE film_frame (
    session_id INTEGER NOT NULL REFERENCES session(id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    picture BLOB NOT NULL,
    PRIMARY KEY (session_id, position)
  );
  CREATE TABLE trial (
    id INTEGER PRIMARY KEY,
    label TEXT NOT NULL,
    made_at TEXT NOT NULL,
    document TEXT NOT NULL
  );
`;
