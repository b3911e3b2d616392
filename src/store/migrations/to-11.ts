/** Finished surveys are sealed in parts, and summed up; what was sealed whole is sealed again when it is read. */
export const toVersion11 = `
  DROP TABLE sealed;
  CREATE TABLE sealed (
    survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    part INTEGER NOT NULL,
    columns BLOB NOT NULL,
    lists TEXT NOT NULL,
    format INTEGER NOT NULL,
    PRIMARY KEY (survey_id, part)
  );
  CREATE TABLE summed (
    survey_id INTEGER NOT NULL REFERENCES survey(id) ON DELETE CASCADE,
    basis TEXT NOT NULL,
    name TEXT NOT NULL,
    document BLOB NOT NULL,
    PRIMARY KEY (survey_id, basis, name)
  );
`;
