import { readFileSync, readdirSync } from 'node:fs';
import { Ajv } from 'ajv';
import type { AnySchema } from 'ajv';

/** A schema may name another one. */
const folder = new URL('../../schemas/', import.meta.url);

let known: Ajv | undefined;

function schemas(): Ajv {
  if (known) return known;
  known = new Ajv({ allErrors: true, allowUnionTypes: true });
  for (const file of readdirSync(folder))
    known.addSchema(JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as AnySchema, file);
  return known;
}

/** What is wrong with a document by its schema in schemas/; empty when nothing is. */
export function schemaErrors(name: string, document: unknown): string[] {
  const validate = schemas().getSchema(`${name}.schema.json`)!;
  void validate(document);
  return (validate.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}
