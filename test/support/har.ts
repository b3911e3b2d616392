import { createRequire } from 'node:module';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';

/** What is wrong with a HAR file by a schema that is not ours (har-schema); empty when nothing is. */
export function harErrors(har: unknown): string[] {
  const schemas = createRequire(import.meta.url)('har-schema') as Record<string, object>;
  const ajv = new Ajv({ strict: false, allErrors: true });
  addFormats.default(ajv);
  for (const schema of Object.values(schemas))
    ajv.addSchema({ ...schema, $schema: 'http://json-schema.org/draft-07/schema#' });
  const validate = ajv.getSchema('har.json#')!;
  void validate(har);
  return (validate.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}
