/** Seals carry the number of their format: one of another format is built again. */
export const toVersion5 = `
  ALTER TABLE sealed ADD COLUMN format INTEGER NOT NULL DEFAULT 0;
`;
