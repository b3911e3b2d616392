/**
 * Small images of files, by which those of one picture are recognised; digests of documents, by which addresses of one page
 * are.
 */
export const toVersion6 = `
  CREATE TABLE fingerprint (
    content_hash TEXT PRIMARY KEY,
    pixels BLOB NOT NULL
  ) WITHOUT ROWID;
  ALTER TABLE page ADD COLUMN document TEXT NOT NULL DEFAULT '';
`;
