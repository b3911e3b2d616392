/** What history is made of once the rest is thinned out, the rounds of a watch, and its alarms; pages that were taken over. */
export const toVersion10 = `
  ALTER TABLE survey ADD COLUMN thinned_at TEXT;
  ALTER TABLE page ADD COLUMN taken_from INTEGER;
  CREATE TABLE figures (
    survey_id INTEGER PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    policy TEXT NOT NULL,
    document BLOB NOT NULL
  );
  CREATE TABLE round (
    id INTEGER PRIMARY KEY,
    started_at TEXT NOT NULL,
    finished_at TEXT,
    outcome TEXT NOT NULL,
    words TEXT NOT NULL
  );
  CREATE TABLE alarm (
    id INTEGER PRIMARY KEY,
    key TEXT NOT NULL,
    document TEXT NOT NULL,
    begun_at TEXT NOT NULL,
    over_at TEXT
  );
  CREATE UNIQUE INDEX alarm_open ON alarm(key) WHERE over_at IS NULL;
  CREATE TABLE delivery (
    alarm_id INTEGER NOT NULL REFERENCES alarm(id) ON DELETE CASCADE,
    channel TEXT NOT NULL,
    occasion TEXT NOT NULL,
    attempts INTEGER NOT NULL,
    delivered_at TEXT,
    error TEXT,
    PRIMARY KEY (alarm_id, channel, occasion)
  ) WITHOUT ROWID;
`;
