/** Small images of files, by which those of one picture are recognised. */
export const toVersion6 = `
  CREATE TABLE fingerprint (
    content_hash TEXT PRIMARY KEY,
    pixels BLOB NOT NULL
  ) WITHOUT ROWID;
`;
