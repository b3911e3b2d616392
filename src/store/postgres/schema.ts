/**
 * The tables of a workspace on a server, as those of SQLite in the same version (docs/workspace.md), and what a folder has
 * beside its database: bodies, and who is at work.
 *
 * Texts are ordered by their bytes, as in SQLite. `rowid` is the order in which rows came, which SQLite gives by itself.
 * Addresses and terms are longer than an index allows: they are unique by their digest.
 */
const schema10 = `
  CREATE FUNCTION digest_of(text) RETURNS bytea LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
    AS $$ SELECT sha256(convert_to($1, 'UTF8')) $$;
  CREATE TABLE survey (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    label text COLLATE "C" NOT NULL,
    started_at text NOT NULL,
    finished_at text,
    starts text NOT NULL,
    views text NOT NULL,
    plan text NOT NULL,
    thinned_at text
  );
  CREATE TABLE due (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url text COLLATE "C" NOT NULL,
    depth integer NOT NULL,
    visits double precision,
    rowid bigint GENERATED ALWAYS AS IDENTITY
  );
  CREATE UNIQUE INDEX due_url ON due (survey_id, digest_of(url));
  CREATE TABLE page (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url text COLLATE "C" NOT NULL,
    final_url text COLLATE "C" NOT NULL,
    status integer,
    depth integer NOT NULL,
    page_group text COLLATE "C",
    error text,
    bytes_by_type text NOT NULL,
    visits double precision,
    curves text NOT NULL,
    shape text NOT NULL,
    document text NOT NULL,
    taken_from bigint,
    kept_at timestamptz NOT NULL DEFAULT clock_timestamp()
  );
  CREATE UNIQUE INDEX page_digest ON page (survey_id, digest_of(url));
  CREATE INDEX page_url ON page USING hash (url);
  CREATE TABLE skipped (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    url text COLLATE "C" NOT NULL,
    reason text NOT NULL,
    rowid bigint GENERATED ALWAYS AS IDENTITY
  );
  CREATE INDEX skipped_survey ON skipped (survey_id);
  CREATE TABLE image_file (
    content_hash text COLLATE "C" PRIMARY KEY,
    media_type text NOT NULL,
    width integer,
    height integer,
    bytes bigint NOT NULL,
    frames integer NOT NULL,
    problem text
  );
  CREATE TABLE visit (
    page_id bigint NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    view text NOT NULL,
    facts text NOT NULL,
    resources text NOT NULL,
    load text NOT NULL,
    rowid bigint GENERATED ALWAYS AS IDENTITY
  );
  CREATE INDEX visit_page ON visit (page_id);
  CREATE TABLE survey_file (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    content_hash text COLLATE "C" NOT NULL REFERENCES image_file(content_hash),
    PRIMARY KEY (survey_id, content_hash)
  );
  CREATE INDEX survey_file_content ON survey_file (content_hash);
  CREATE TABLE term (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    text text COLLATE "C" NOT NULL
  );
  CREATE UNIQUE INDEX term_digest ON term (survey_id, digest_of(text));
  CREATE INDEX term_text ON term USING hash (text);
  CREATE TABLE encoded (
    content_hash text COLLATE "C" NOT NULL REFERENCES image_file(content_hash),
    need_width integer NOT NULL,
    need_height integer NOT NULL,
    policy text COLLATE "C" NOT NULL,
    result_hash text COLLATE "C",
    result text NOT NULL,
    PRIMARY KEY (content_hash, need_width, need_height, policy)
  );
  CREATE INDEX encoded_result ON encoded (result_hash);
  CREATE TABLE sealed (
    survey_id bigint PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    columns bytea NOT NULL,
    lists text NOT NULL,
    format integer NOT NULL
  );
  CREATE TABLE fingerprint (
    content_hash text COLLATE "C" PRIMARY KEY,
    pixels bytea NOT NULL
  );
  CREATE TABLE text_file (
    content_hash text COLLATE "C" PRIMARY KEY,
    facts text NOT NULL
  );
  CREATE TABLE survey_text (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    content_hash text COLLATE "C" NOT NULL,
    PRIMARY KEY (survey_id, content_hash)
  );
  CREATE INDEX survey_text_content ON survey_text (content_hash);
  CREATE TABLE session (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    clocking bigint NOT NULL,
    label text COLLATE "C" NOT NULL,
    page text COLLATE "C" NOT NULL,
    started_at text NOT NULL,
    conditions text NOT NULL
  );
  CREATE INDEX session_label ON session (label);
  CREATE TABLE run (
    session_id bigint NOT NULL REFERENCES session(id) ON DELETE CASCADE,
    position integer NOT NULL,
    run text NOT NULL,
    PRIMARY KEY (session_id, position)
  );
  CREATE TABLE screen (
    page_id bigint NOT NULL REFERENCES page(id) ON DELETE CASCADE,
    view text NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    boxes text NOT NULL,
    picture bytea,
    PRIMARY KEY (page_id, view)
  );
  CREATE TABLE film (
    session_id bigint PRIMARY KEY REFERENCES session(id) ON DELETE CASCADE,
    film text NOT NULL
  );
  CREATE TABLE film_frame (
    session_id bigint NOT NULL REFERENCES session(id) ON DELETE CASCADE,
    position integer NOT NULL,
    picture bytea NOT NULL,
    PRIMARY KEY (session_id, position)
  );
  CREATE TABLE trial (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    label text NOT NULL,
    made_at text NOT NULL,
    document text NOT NULL
  );
  CREATE TABLE figures (
    survey_id bigint PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    policy text NOT NULL,
    document bytea NOT NULL
  );
  CREATE TABLE round (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    started_at text NOT NULL,
    finished_at text,
    outcome text NOT NULL,
    words text NOT NULL
  );
  CREATE TABLE alarm (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    key text COLLATE "C" NOT NULL,
    document text NOT NULL,
    begun_at text NOT NULL,
    over_at text
  );
  CREATE UNIQUE INDEX alarm_open ON alarm (key) WHERE over_at IS NULL;
  CREATE TABLE delivery (
    alarm_id bigint NOT NULL REFERENCES alarm(id) ON DELETE CASCADE,
    channel text COLLATE "C" NOT NULL,
    occasion text COLLATE "C" NOT NULL,
    attempts integer NOT NULL,
    delivered_at text,
    error text,
    PRIMARY KEY (alarm_id, channel, occasion)
  );
  CREATE TABLE body (
    content_hash text COLLATE "C" PRIMARY KEY,
    bytes bytea NOT NULL
  );
  ALTER TABLE body ALTER COLUMN bytes SET STORAGE EXTERNAL;
  CREATE TABLE lease (
    name text COLLATE "C" PRIMARY KEY,
    pid integer NOT NULL,
    host text NOT NULL,
    token text NOT NULL,
    seen_at timestamptz NOT NULL
  );
  CREATE TABLE worker (
    id text COLLATE "C" PRIMARY KEY,
    name text NOT NULL,
    host text NOT NULL,
    pid integer NOT NULL,
    tabs integer NOT NULL,
    measures text NOT NULL,
    started_at timestamptz NOT NULL,
    seen_at timestamptz NOT NULL
  );
  CREATE TABLE fleet_survey (
    survey_id bigint PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    settings text NOT NULL,
    measures text NOT NULL
  );
  CREATE TABLE turn (
    host text COLLATE "C" PRIMARY KEY,
    free_at timestamptz NOT NULL
  );
  CREATE TABLE task (
    key text COLLATE "C" PRIMARY KEY,
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    worker_id text NOT NULL,
    what text NOT NULL,
    begun_at timestamptz NOT NULL,
    answer bytea
  );
  CREATE INDEX task_survey ON task (survey_id);
  CREATE TABLE workspace (
    version integer NOT NULL
  );
`;

/** The same as in SQLite (`migrations/to-11.ts`). */
const toVersion11 = `
  DROP TABLE sealed;
  CREATE TABLE sealed (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    part integer NOT NULL,
    columns bytea NOT NULL,
    lists text NOT NULL,
    format integer NOT NULL,
    PRIMARY KEY (survey_id, part)
  );
  CREATE TABLE summed (
    survey_id bigint NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    basis text COLLATE "C" NOT NULL,
    name text COLLATE "C" NOT NULL,
    document bytea NOT NULL,
    PRIMARY KEY (survey_id, basis, name)
  );
`;

/** The first version that a server had, and what makes each from the one before it. */
export const firstVersion = 10;
export const serverMigrations: readonly string[] = [schema10, toVersion11];
