/** The tables of finished surveys as they are read the fastest. */
export const toVersion4 = `
  CREATE TABLE sealed (
    survey_id INTEGER PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    columns BLOB NOT NULL,
    lists TEXT NOT NULL
  );
`;
