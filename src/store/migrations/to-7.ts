/** What visits were sent besides images, and what can be said of its texts. */
export const toVersion7 = `
  ALTER TABLE visit ADD COLUMN resources TEXT NOT NULL DEFAULT '[]';
  CREATE TABLE text_file (
    content_hash TEXT PRIMARY KEY,
    facts TEXT NOT NULL
  ) WITHOUT ROWID;
`;
