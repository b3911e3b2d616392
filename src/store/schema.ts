import type Database from 'libsql';
import { packVisits } from './pack-visits.js';
import { shareTerms } from './share-terms.js';

/** The version of the workspace that this program writes. */
export const schemaVersion = 4;

type Migration = string | ((database: Database.Database) => void);

/** What leads from each version to the next; the first one makes an empty workspace. */
export const migrations: readonly Migration[] = [
  `
  CREATE TABLE survey (
    id INTEGER PRIMARY KEY,
    label TEXT NOT NULL,
    started_at TEXT NOT NULL,
    finished_at TEXT,
    starts TEXT NOT NULL,
    views TEXT NOT NULL,
    plan TEXT NOT NULL
  );
  CREATE TABLE due (
    survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url TEXT NOT NULL,
    depth INTEGER NOT NULL,
    PRIMARY KEY (survey_id, url)
  );
  CREATE TABLE page (
    id INTEGER PRIMARY KEY,
    survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url TEXT NOT NULL,
    final_url TEXT NOT NULL,
    status INTEGER,
    depth INTEGER NOT NULL,
    page_group TEXT,
    error TEXT,
    bytes_by_type TEXT NOT NULL,
    UNIQUE (survey_id, url)
  );
  CREATE TABLE skipped (
    survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url TEXT NOT NULL,
    reason TEXT NOT NULL
  );
  CREATE TABLE image_file (
    content_hash TEXT PRIMARY KEY,
    media_type TEXT NOT NULL,
    width INTEGER,
    height INTEGER,
    bytes INTEGER NOT NULL,
    frames INTEGER NOT NULL,
    problem TEXT
  );
  CREATE TABLE image_response (
    page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    view TEXT NOT NULL,
    url TEXT NOT NULL,
    content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
    declared_type TEXT NOT NULL,
    transfer_bytes INTEGER NOT NULL,
    third_party INTEGER NOT NULL
  );
  CREATE INDEX image_response_page ON image_response(page_id);
  CREATE TABLE placement (
    page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    view TEXT NOT NULL,
    kind TEXT NOT NULL,
    selector TEXT NOT NULL,
    url TEXT NOT NULL,
    content_hash TEXT REFERENCES image_file(content_hash),
    slot_width REAL NOT NULL,
    slot_height REAL NOT NULL,
    fit TEXT NOT NULL,
    above_fold INTEGER NOT NULL,
    shown INTEGER NOT NULL,
    loading TEXT NOT NULL,
    fetched TEXT,
    details TEXT NOT NULL
  );
  CREATE TABLE slot_curve (
    page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    kind TEXT NOT NULL,
    selector TEXT NOT NULL,
    pieces TEXT NOT NULL,
    PRIMARY KEY (page_id, kind, selector)
  ) WITHOUT ROWID;
  CREATE INDEX placement_page ON placement(page_id);
  CREATE TABLE encoded (
    content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
    need_width INTEGER NOT NULL,
    need_height INTEGER NOT NULL,
    policy TEXT NOT NULL,
    format TEXT NOT NULL,
    pixel_ratio REAL NOT NULL,
    same_format INTEGER NOT NULL,
    best INTEGER NOT NULL,
    result_hash TEXT,
    problem TEXT,
    PRIMARY KEY (content_hash, need_width, need_height, policy)
  );
  CREATE TABLE session (
    id INTEGER PRIMARY KEY,
    clocking INTEGER NOT NULL,
    label TEXT NOT NULL,
    page TEXT NOT NULL,
    started_at TEXT NOT NULL,
    conditions TEXT NOT NULL
  );
  CREATE INDEX session_label ON session(label);
  CREATE TABLE run (
    session_id INTEGER NOT NULL REFERENCES session(id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    run TEXT NOT NULL,
    PRIMARY KEY (session_id, position)
  );
  `,
  // Rows of placements took most of a second to read for each 100,000: a visit is one document now.
  (database) => {
    database.exec(`
      ALTER TABLE due ADD COLUMN visits REAL;
      ALTER TABLE page ADD COLUMN visits REAL;
      ALTER TABLE page ADD COLUMN curves TEXT NOT NULL DEFAULT '[]';
      ALTER TABLE page ADD COLUMN shape TEXT NOT NULL DEFAULT '[]';
      CREATE TABLE visit (
        page_id INTEGER NOT NULL REFERENCES page(id) ON DELETE CASCADE,
        view TEXT NOT NULL,
        facts TEXT NOT NULL
      );
      CREATE INDEX visit_page ON visit(page_id);
      CREATE TABLE survey_file (
        survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
        content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
        PRIMARY KEY (survey_id, content_hash)
      ) WITHOUT ROWID;
      INSERT OR IGNORE INTO survey_file
        SELECT survey_id, content_hash FROM image_response JOIN page ON page.id = page_id;
    `);
    packVisits(database);
    database.exec(`
      DROP TABLE placement;
      DROP TABLE image_response;
      DROP TABLE slot_curve;
    `);
  },
  // Rows of a million placements were more than could be read while somebody waits: what repeats is kept once now.
  // What the older encodes were made with says nothing of quality: they are made again when they are asked for.
  (database) => {
    database.exec(`
      CREATE TABLE term (
        id INTEGER PRIMARY KEY,
        survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
        text TEXT NOT NULL,
        UNIQUE (survey_id, text)
      );
      DROP TABLE encoded;
      CREATE TABLE encoded (
        content_hash TEXT NOT NULL REFERENCES image_file(content_hash),
        need_width INTEGER NOT NULL,
        need_height INTEGER NOT NULL,
        policy TEXT NOT NULL,
        result_hash TEXT,
        result TEXT NOT NULL,
        PRIMARY KEY (content_hash, need_width, need_height, policy)
      );
    `);
    shareTerms(database);
  },
  `
  CREATE TABLE sealed (
    survey_id INTEGER PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    columns BLOB NOT NULL,
    lists TEXT NOT NULL
  );
  `,
];
