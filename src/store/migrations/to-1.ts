/** The tables of the first version. */
export const toVersion1 = `
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
  `;
