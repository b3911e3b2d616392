/** How each visit loaded, besides what it was sent, and which texts each survey has: they go with the last that has them. */
export const toVersion8 = `
  ALTER TABLE visit ADD COLUMN load TEXT NOT NULL DEFAULT 'null';
  CREATE TABLE survey_text (
    survey_id INTEGER NOT NULL REFERENCES survey (id) ON DELETE CASCADE,
    content_hash TEXT NOT NULL,
    PRIMARY KEY (survey_id, content_hash)
  ) WITHOUT ROWID;
  INSERT OR IGNORE INTO survey_text
    SELECT survey_id, json_extract(text, '$.contentHash') FROM term
    WHERE text LIKE '{"url":%'
      AND json_extract(text, '$.contentHash') IN (SELECT content_hash FROM text_file);
`;
