/** The tables of finished surveys in the form that is fastest to read. */
export const toVersion4 = `
  CREATE TABLE sealed (
    survey_id INTEGER PRIMARY KEY REFERENCES survey(id) ON DELETE CASCADE,
    columns BLOB NOT NULL,
    lists TEXT NOT NULL
  );
`;
