import { readFileSync } from 'node:fs';
import { Ajv } from 'ajv';

/** What is wrong with a document by its schema in schemas/; empty when nothing is. */
export function schemaErrors(name: string, document: unknown): string[] {
  const file = new URL(`../../schemas/${name}.schema.json`, import.meta.url);
  const ajv = new Ajv({ allErrors: true, allowUnionTypes: true });
  const validate = ajv.compile(JSON.parse(readFileSync(file, 'utf8')) as object);
  validate(document);
  return (validate.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}
