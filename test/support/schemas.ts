import { readFileSync, readdirSync } from 'node:fs';
import { Ajv } from 'ajv';
import type { AnySchema } from 'ajv';

/** A schema may name another one. */
const folder = new URL('../../schemas/', import.meta.url);

/** What is wrong with a document by its schema in schemas/; empty when nothing is. */
export function schemaErrors(name: string, document: unknown): string[] {
  const ajv = new Ajv({ allErrors: true, allowUnionTypes: true });
  for (const file of readdirSync(folder))
    ajv.addSchema(JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as AnySchema, file);
  const validate = ajv.getSchema(`${name}.schema.json`)!;
  void validate(document);
  return (validate.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}
